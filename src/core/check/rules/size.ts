import { ratioLabel } from '../../picture/size';
import type { Rule } from '../finding';

/** The canvas's size and ratio against what the placement keeps. */
export const sizeRule: Rule = {
  id: 'size',
  outlet: true,
  check({ canvas, target }) {
    const { placement, key } = target;
    const name = (size: { width: number; height: number }) =>
      `${size.width}×${size.height}, ${ratioLabel(size)}`;
    const base = {
      rule: 'size',
      measured: name(canvas),
      limit: name(placement),
      unit: 'px',
      holds: 'export',
    } as const;
    if (canvas.width === placement.width && canvas.height === placement.height) {
      return { ...base, severity: 'pass', code: 'same' };
    }
    const command = { type: 'choose-placement', placement: key } as const;
    return {
      ...base,
      severity: 'stop',
      code: 'differs',
      fix: { label: 'Take the size it asks for', command },
    };
  },
};
