import { chooseCanvasSize } from '../../outlets/outlets';
import { sizesLabel, isSizeTaken } from '../../outlets/taken-sizes';
import { sizeLabel } from '../../picture/size';
import { exportRule, outcome } from '../rule';

interface Sizes {
  has: string;
  asked: string;
}
const figures = ({ has, asked }: Sizes): string => `${has}; asked ${asked}`;

/** The canvas's size against those that the placement takes. */
export const sizeRule = exportRule({
  name: 'Size',
  reads: ['canvas', 'target'],
  outlet: true,
  outcomes: {
    same: outcome<Sizes>(({ has }, { label }) => `${has}, as ${label} asks.`, figures),
    differs: outcome<Sizes>(
      ({ has, asked }, { label }) => `${has}, but ${label} asks for ${asked}.`,
      figures,
    ),
  },
  check({ canvas, target }) {
    const { sizes } = target.placement;
    const values = { has: sizeLabel(canvas), asked: sizesLabel(sizes) };
    if (isSizeTaken(sizes, canvas)) return { severity: 'pass', code: 'same', values };
    // A further placement of the canvas does not take its place.
    if (canvas.placement !== target.key) return { severity: 'stop', code: 'differs', values };
    const { width, height } = chooseCanvasSize(target);
    const fix = { fix: 'take-size', values: { placement: target.key, size: { width, height } } } as const;
    return { severity: 'stop', code: 'differs', values, fix };
  },
});
