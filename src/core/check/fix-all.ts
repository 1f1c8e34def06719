import { applyCommand, type Command } from '../job/commands/commands';
import { onCanvas, onClip, type Work } from '../job/job';
import { type BoardCell, CheckBoard, countWhole } from './check-board';
import type { CheckContext } from './check-input';
import type { RuleId } from './rules';
import { fixCommand, fixLabel, isSafe } from './fixes';

/** A fix that is applied, and where. */
export interface FixStep {
  clip: string;
  clipName: string;
  canvas: string;
  /** Label of the canvas. */
  label: string;
  rule: RuleId;
  /** Effect of the fix, in words. */
  does: string;
  command: Command;
}

/** A fix may bring up another: so many in all is far more than there are rules. */
const MAX_FIXES = 500;

/**
 * Every safe fix of a job, each worked out once those before it are applied. Findings that only inform are left as they
 * are.
 */
export function safeFixes(work: Work, known: CheckContext): FixStep[] {
  const board = new CheckBoard();
  const steps: FixStep[] = [];
  const tried = new Set<string>();
  let now = work;
  while (steps.length < MAX_FIXES) {
    const step = board
      .check(now, known)
      .flatMap((cell) => listFixSteps(cell))
      .find((step) => !tried.has(toKey(step)));
    if (!step) break;
    tried.add(toKey(step));
    steps.push(step);
    const { clip, canvas, command } = step;
    now = { ...now, edit: applyCommand(onCanvas(onClip(now, clip), canvas).edit, command) };
  }
  return steps;
}

/** A fix that did not help is not tried again. */
const toKey = ({ clip, canvas, rule, does }: FixStep): string => `${clip} ${canvas} ${rule} ${does}`;

function listFixSteps({ clip, clipName, canvas, label, findings, overrides }: BoardCell): FixStep[] {
  return findings.flatMap((finding): FixStep[] => {
    const { fix, rule } = finding;
    const counts = ['stop', 'warn'].includes(countWhole(finding, overrides));
    if (!fix || !counts || !isSafe(fix)) return [];
    return [{ clip, clipName, canvas, label, rule, does: fixLabel(fix), command: fixCommand(fix) }];
  });
}
