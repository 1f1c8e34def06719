import { ratioLabel, type Size } from '../../picture/size';
import { exportRule, outcome } from '../rule';

interface Sizes {
  has: string;
  asked: string;
}
const nameOf = (size: Size): string => `${size.width}×${size.height}, ${ratioLabel(size)}`;
const figures = ({ has, asked }: Sizes): string => `${has}; asked ${asked}`;

/** The canvas's size and ratio against what the placement keeps. */
export const sizeRule = exportRule({
  name: 'Size and ratio',
  outlet: true,
  outcomes: {
    same: outcome<Sizes>(({ has }, { label }) => `${has}, as ${label} asks.`, figures),
    differs: outcome<Sizes>(
      ({ has, asked }, { label }) => `${has}, but ${label} asks for ${asked}.`,
      figures,
    ),
  },
  check({ canvas, target: { placement, key } }) {
    const values = { has: nameOf(canvas), asked: nameOf(placement) };
    if (canvas.width === placement.width && canvas.height === placement.height) {
      return { severity: 'pass', code: 'same', values };
    }
    const fix = { fix: 'take-size', values: { placement: key } } as const;
    return { severity: 'stop', code: 'differs', values, fix };
  },
});
