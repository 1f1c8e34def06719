import { toMasterLengths, rangeStarts } from '../../cut/cut';
import { formatCount } from '../../figures/figures';
import { isBurnt, PLAIN_CANVAS_TEXT } from '../../words/canvas-text';
import { lintCues } from '../../words/cue-lint';
import { listCues } from '../../words/cue-list';
import { exportRule, outcome } from '../rule';

interface Count {
  captions: number;
}
interface FaultValues extends Count {
  faulty: number;
}

/** Feeds play with the sound off: what is said is there to be read, and can be. */
export const captionsRule = exportRule({
  name: 'Captions',
  reads: ['text', 'cut', 'canvas', 'plan', 'sources'],
  outcomes: {
    silent: outcome<object>(
      () => 'The clip has no sound, and needs no captions.',
      () => 'no sound',
    ),
    none: outcome<object>(
      () => 'There are no captions. Feeds play with the sound off: add some if anything is said.',
      () => 'none',
    ),
    left: outcome<Count>(
      ({ captions }) =>
        `${formatCount(captions, 'caption')} of the clip: neither burnt in here nor sent as a file. Choose how they go out.`,
      ({ captions }) => `${formatCount(captions, 'caption')}, left out`,
    ),
    fine: outcome<Count & { burnt: boolean }>(
      ({ captions, burnt }) =>
        `${formatCount(captions, 'caption')}, ${burnt ? 'burnt in' : 'sent as files'}, within all limits.`,
      ({ captions }) => formatCount(captions, 'caption'),
    ),
    faulty: outcome<FaultValues>(
      ({ captions, faulty }) =>
        `${faulty} of ${formatCount(captions, 'caption')} ${faulty === 1 ? 'breaks' : 'break'} a limit. ` +
        'See what is marked in the list of captions.',
      ({ captions, faulty }) => `${faulty} of ${captions}`,
    ),
  },
  check({ text, cut, canvas, plan, sources }) {
    const { cues, limits } = text.captions;
    const { captions: way } = canvas.text ?? PLAIN_CANVAS_TEXT;
    const masters = toMasterLengths(sources);
    const { rate } = canvas;
    const timeline = { cut, starts: rangeStarts(cut, masters, rate), masters, rate };
    const listed = listCues(cues, timeline).filter(({ at }) => at !== null);
    const captions = listed.length;
    if (captions === 0) {
      const sounds = sources.some((source) => source.audio !== null);
      return sounds
        ? { severity: 'note', code: 'none', values: {} }
        : { severity: 'pass', code: 'silent', values: {} };
    }
    if (way === 'none') return { severity: 'note', code: 'left', values: { captions } };
    const cuts = plan.segments.map((segment) => segment.start).filter((start) => start > 0);
    const faults = lintCues(listed, { limits, cuts, rate });
    const first = listed.find(({ cue }) => faults.has(cue.id));
    if (first) {
      const values = { captions, faulty: faults.size };
      return { severity: 'warn', code: 'faulty', values, frame: first.at?.from };
    }
    return { severity: 'pass', code: 'fine', values: { captions, burnt: isBurnt(way) } };
  },
});
