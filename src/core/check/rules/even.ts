import { type Size, sizeLabel } from '../../picture/size';
import { exportRule, outcome } from '../rule';

/** Colour is kept for squares of two by two pixels (4:2:0), so that a side has to be even. */
export const evenRule = exportRule({
  name: 'Even sizes',
  reads: ['canvas'],
  outcomes: {
    even: outcome<Size>((values) => `Both sides are even: ${sizeLabel(values)}.`, sizeLabel),
    odd: outcome<Size>(
      (values) =>
        `${sizeLabel(values)} has an odd side, which H.264 in 4:2:0 cannot hold. Change it by one pixel.`,
      sizeLabel,
    ),
  },
  check({ canvas: { width, height } }) {
    const values = { width, height };
    return width % 2 === 0 && height % 2 === 0
      ? { severity: 'pass', code: 'even', values }
      : { severity: 'stop', code: 'odd', values };
  },
});
