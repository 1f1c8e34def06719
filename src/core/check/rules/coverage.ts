import type { Rule } from '../finding';

/** Every frame of the canvas filled with picture, from the geometry. */
export const coverageRule: Rule = {
  id: 'coverage',
  check({ coverage, plan, target }) {
    const base = {
      rule: 'coverage',
      measured: plan.frames - coverage.bareFrames,
      limit: plan.frames,
      unit: 'frames',
      holds: 'export',
      at: coverage.worstFrame,
    } as const;
    if (coverage.covered) return { ...base, severity: 'pass', code: 'filled' };
    return {
      ...base,
      severity: target.placement.bars === 'refused' ? 'stop' : 'warn',
      code: coverage.reason ?? 'gap',
      measured: coverage.bareShots.length,
      limit: coverage.shots,
      unit: 'shots',
      ...(coverage.reason === 'bars'
        ? { fix: { label: 'Fill the canvas', command: { type: 'fill-canvas' } } }
        : {}),
    };
  },
};
