import { type BoardCell, countWhole, rankSeverity } from './check-board';
import type { Finding } from './finding';
import type { RuleId } from './rules';

/** A finding that is another than before. */
export interface ChangedVerdict {
  cell: BoardCell;
  rule: RuleId;
  before: Finding;
  after: Finding;
  worse: boolean;
}

/** Lists what got worse or better between two checks of a job, cell by cell and rule by rule. */
export function listChangedVerdicts(
  before: readonly BoardCell[],
  after: readonly BoardCell[],
): ChangedVerdict[] {
  const toKey = ({ clip, canvas, placement }: BoardCell) => `${clip} ${canvas} ${placement}`;
  const known = new Map(before.map((cell) => [toKey(cell), cell]));
  return after.flatMap((cell) => {
    const old = known.get(toKey(cell));
    if (!old) return [];
    return cell.findings.flatMap((finding): ChangedVerdict[] => {
      const was = old.findings.find(({ rule }) => rule === finding.rule);
      if (!was) return [];
      const [from, to] = [
        rankSeverity(countWhole(was, old.overrides)),
        rankSeverity(countWhole(finding, cell.overrides)),
      ];
      if (from === to) return [];
      return [{ cell, rule: finding.rule, before: was, after: finding, worse: to > from }];
    });
  });
}
