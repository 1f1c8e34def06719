import { findRangeIndex } from '../../cut/cut';
import { ratioLabel, type Size } from '../../picture/size';
import { exportRule, outcome } from '../rule';

interface Ratios {
  /** True when a frame was chosen; else the cover is the first frame. */
  chosen: boolean;
  has: string;
  asked: string;
}
const frameWords = ({ chosen }: Ratios): string => (chosen ? 'The chosen frame' : 'The first frame');
const figures = ({ has, asked }: Ratios): string => `${has}; asked ${asked}`;
/** Ratios that differ by less look the same. */
const ALIKE = 0.01;

/** The still that is shown before the clip plays, in the cover's ratio: a frame that was chosen, or the first. */
export const coverRule = exportRule({
  name: 'Cover',
  reads: ['canvas', 'target', 'text', 'cut'],
  outlet: true,
  outcomes: {
    none: outcome<object>(
      (_, { label }) => `${label} takes no cover.`,
      () => 'no cover',
    ),
    whole: outcome<Ratios>(
      (ratios) =>
        `${frameWords(ratios)} is the cover, ${ratios.asked}.${ratios.chosen ? '' : ' Choose another among the words if it does not show what the clip is about.'}`,
      figures,
    ),
    cropped: outcome<Ratios>(
      (ratios, { label }) =>
        `${frameWords(ratios)} is the cover. ${label} shows covers of ${ratios.asked}: the middle of the clip's ${ratios.has}.`,
      figures,
    ),
    outside: outcome<object>(
      () => 'The frame that was chosen as the cover is no longer in the clip. Choose another.',
      () => 'not in the clip',
    ),
  },
  check({ canvas, target, text, cut }) {
    const { cover } = target.placement;
    if (!cover) return { severity: 'pass', code: 'none', values: {} };
    const chosen = text.cover;
    if (chosen && findRangeIndex(cut, chosen.master, chosen.frame) < 0) {
      return { severity: 'warn', code: 'outside', values: {} };
    }
    const label = (size: Size) => `${ratioLabel(size)}, ${size.width}×${size.height}`;
    const values = { chosen: chosen !== undefined, has: label(canvas), asked: label(cover) };
    const alike = Math.abs((canvas.width * cover.height) / (canvas.height * cover.width) - 1) < ALIKE;
    return alike
      ? { severity: 'pass', code: 'whole', values }
      : { severity: 'note', code: 'cropped', values };
  },
});
