import { codecName } from '../../master/master';
import { anyOf } from '../../outlets/judge';
import { exportContainer } from '../../render/container';
import { exportRule, outcome } from '../rule';

interface Taken {
  made: string;
  taken: string;
}
const figures = ({ made, taken }: Taken): string => `${made}; asked ${taken}`;

/** The container, codec and profile that exports are made in, against those that the placement takes. */
export const streamRule = exportRule({
  name: 'File and codec',
  reads: ['target'],
  outlet: true,
  outcomes: {
    taken: outcome<Taken>(({ made }, { label }) => `${made}, as ${label} takes it.`, figures),
    container: outcome<Taken>(
      ({ made, taken }, { label }) => `Exports are ${made}, but ${label} takes only ${taken}.`,
      figures,
    ),
    codec: outcome<Taken>(
      ({ made, taken }, { label }) => `Exports are in ${made}, but ${label} takes only ${taken}.`,
      figures,
    ),
    profile: outcome<Taken>(
      ({ made, taken }, { label }) =>
        `Exports are in the ${made} profile of H.264, but ${label} takes only ${taken}.`,
      figures,
    ),
  },
  check({ target: { placement } }) {
    const { containers, video } = placement;
    const container = exportContainer(containers);
    if (!containers.includes(container)) {
      const values = { made: container.toUpperCase(), taken: anyOf(containers).toUpperCase() };
      return { severity: 'stop', code: 'container', values };
    }
    if (!video.codecs.includes('avc')) {
      const values = { made: codecName('avc'), taken: anyOf(video.codecs.map(codecName)) };
      return { severity: 'stop', code: 'codec', values };
    }
    if (!video.profiles.includes('high')) {
      return { severity: 'stop', code: 'profile', values: { made: 'high', taken: anyOf(video.profiles) } };
    }
    const made = `${container.toUpperCase()}, ${codecName('avc')}, high profile`;
    const taken = `${anyOf(containers).toUpperCase()}, ${anyOf(video.codecs.map(codecName))}`;
    return { severity: 'pass', code: 'taken', values: { made, taken } };
  },
});
