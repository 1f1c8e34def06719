import { judgeLevel, levelName } from '../../outlets/limits/level';
import { isLevelTooLow } from '../../render/encode-settings';
import { rateLabel } from '../../time/frame-rate';
import { exportRule, outcome } from '../rule';

interface Stream {
  /** For instance 4.2. */
  level: string;
  limit: string;
}
interface ExcessValues {
  size: string;
  rate: string;
}
const figures = ({ level, limit }: Stream): string => `level ${level}, limit ${limit}`;

/** The lowest level of H.264 that takes the canvas's size, rate and bits, against the placement's. */
export const levelRule = exportRule({
  name: 'H.264 level',
  reads: ['canvas', 'making', 'plan', 'target'],
  outcomes: {
    other: outcome<object>(
      () => 'The picture is not made in H.264.',
      () => 'not H.264',
    ),
    lossless: outcome<object>(
      () => 'A lossless copy is not held to a level.',
      () => 'lossless',
    ),
    fits: outcome<Stream>(({ level }) => `The clip fits level ${level}.`, figures),
    over: outcome<Stream>(
      ({ level, limit }, { label }) =>
        `The clip needs level ${level}, but ${label} takes at most ${limit}. ` +
        'Make the canvas smaller, or take a lower rate or bit rate.',
      figures,
    ),
    chosen: outcome<Stream>(
      ({ level, limit }, { label }) =>
        `Level ${level} was chosen, but ${label} takes at most ${limit}. Choose the level that is worked out.`,
      figures,
    ),
    low: outcome<{ level: string }>(
      ({ level }) =>
        `Level ${level} was chosen, but the clip's size, rate and bits go beyond it: players that keep to levels may not play it. ` +
        'Choose the level that is worked out.',
      ({ level }) => `level ${level}, too low`,
    ),
    none: outcome<ExcessValues>(
      ({ size, rate }) =>
        `No level of H.264 that is made here takes ${size} at ${rate} fps. Make the canvas smaller, or take a lower rate or bit rate.`,
      ({ size, rate }) => `${size}, ${rate} fps, over level 5.2`,
    ),
  },
  check({ canvas, making: { picture }, plan, target }) {
    const { width, height, rate } = canvas;
    if (picture?.codec !== 'avc') return { severity: 'pass', code: 'other', values: {} };
    if (picture.kind === 'lossless') return { severity: 'pass', code: 'lossless', values: {} };
    const { level } = picture;
    if (level === null) {
      const values = { size: `${width}×${height}`, rate: rateLabel(rate) };
      return { severity: 'stop', code: 'none', values };
    }
    if (isLevelTooLow(plan, picture))
      return { severity: 'warn', code: 'low', values: { level: levelName(level) } };
    const { mostLevel } = target.placement.video;
    const values = { level: levelName(level), limit: levelName(mostLevel) };
    return judgeLevel(level, target.placement)
      ? { severity: 'stop', code: canvas.encoding?.level == null ? 'over' : 'chosen', values }
      : { severity: 'pass', code: 'fits', values };
  },
});
