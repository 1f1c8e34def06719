import { judgeCodec } from '../../outlets/limits/codec';
import { judgeContainer } from '../../outlets/limits/container';
import { codecName } from '../../master/master';
import { joinAlternatives } from '../../outlets/limits/limit';
import { FORMATS } from '../../rate/format';
import { isForPlacement } from '../../render/encode-settings';
import { exportRule, outcome } from '../rule';

interface TakenValues {
  made: string;
  taken: string;
}
const figures = ({ made, taken }: TakenValues): string => `${made}; asked ${taken}`;

/** The container, codec and profile that exports are made in, against those that the placement takes. */
export const streamRule = exportRule({
  name: 'File and codec',
  reads: ['making', 'target'],
  outlet: true,
  outcomes: {
    taken: outcome<TakenValues>(({ made }, { label }) => `${made}, as ${label} takes it.`, figures),
    container: outcome<TakenValues>(
      ({ made, taken }, { label }) => `Exports are ${made}, but ${label} takes only ${taken}.`,
      figures,
    ),
    codec: outcome<TakenValues>(
      ({ made, taken }, { label }) => `Exports are in ${made}, but ${label} takes only ${taken}.`,
      figures,
    ),
    apart: outcome<TakenValues>(
      ({ made, taken }, { label }) =>
        `The file is made as ${made}. ${label} takes ${taken}: it cannot be posted there as it is.`,
      figures,
    ),
    profile: outcome<TakenValues>(
      ({ made, taken }, { label }) =>
        `Exports are in the ${made} profile of H.264, but ${label} takes only ${taken}.`,
      figures,
    ),
  },
  check({ making, target: { placement } }) {
    const { containers, video } = placement;
    const { name, container, video: codec } = FORMATS[making.format];
    const takenCodecs = joinAlternatives(video.codecs.map(codecName));
    const taken = `${joinAlternatives(containers).toUpperCase()}, ${takenCodecs}`;
    if (!isForPlacement(making, placement))
      return { severity: 'warn', code: 'apart', values: { made: name, taken } };
    const profile = making.picture?.profile ?? 'high';
    const broken = judgeCodec({ codec: codec ?? '', profile: codec === 'avc' ? profile : null }, placement);
    if (judgeContainer(container, placement)) {
      const values = { made: container.toUpperCase(), taken: joinAlternatives(containers).toUpperCase() };
      return { severity: 'stop', code: 'container', values };
    }
    if (broken === 'codec') {
      return {
        severity: 'stop',
        code: 'codec',
        values: { made: codecName(codec ?? ''), taken: takenCodecs },
      };
    }
    if (broken === 'profile') {
      return {
        severity: 'stop',
        code: 'profile',
        values: { made: profile, taken: joinAlternatives(video.profiles) },
      };
    }
    const made = [
      container.toUpperCase(),
      codecName(codec ?? ''),
      codec === 'avc' ? `${profile} profile` : '',
    ];
    return { severity: 'pass', code: 'taken', values: { made: made.filter(Boolean).join(', '), taken } };
  },
});
