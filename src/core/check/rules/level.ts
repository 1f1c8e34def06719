import { levelFor } from '../../rate/level';
import { rateLabel } from '../../time/frame-rate';
import { exportRule, outcome } from '../rule';

interface Stream {
  /** For instance 4.2. */
  level: string;
}
interface TooMuch {
  size: string;
  rate: string;
}

/** A level of H.264 that takes the canvas's size, rate and bits: without one there is nothing to code it in. */
export const levelRule = exportRule({
  name: 'H.264 level',
  outcomes: {
    fits: outcome<Stream>(
      ({ level }) => `The clip fits level ${level}.`,
      ({ level }) => `level ${level}, limit 5.2`,
    ),
    none: outcome<TooMuch>(
      ({ size, rate }) =>
        `No level of H.264 takes ${size} at ${rate} fps. Make the canvas smaller, or take a lower rate or bit rate.`,
      ({ size, rate }) => `${size}, ${rate} fps, over level 5.2`,
    ),
  },
  check({ canvas, videoBits }) {
    const { width, height, rate } = canvas;
    const level = levelFor(canvas, rate, videoBits);
    if (level !== null) return { severity: 'pass', code: 'fits', values: { level: (level / 10).toFixed(1) } };
    const values = { size: `${width}×${height}`, rate: rateLabel(rate) };
    return { severity: 'stop', code: 'none', values };
  },
});
