import { toRateChange } from '../../job/retime';
import { diagnoseMaster, type Problem } from '../../diagnosis/diagnosis';
import type { ProblemCode, ProblemValues } from '../../diagnosis/problem-values';
import { toSource } from '../../master/source';
import type { MasterAnalysis } from '../master-analysis';
import { exportRule, outcome } from '../rule';

interface Words<Values> {
  /** Where only the look at the master can know it. */
  unknown?: string;
  found(values: Values): string;
  clear: string;
}

/** Declares a warning about a master that its diagnosis makes, with the first repair that it offers. */
export const problemRule = <Code extends ProblemCode>(
  name: string,
  code: Code,
  words: Words<ProblemValues[Code]>,
) =>
  exportRule({
    name,
    reads: ['looks', 'canvas'],
    outcomes: {
      unknown: outcome<object>(
        () => words.unknown ?? '',
        () => 'not known yet',
      ),
      found: outcome<ProblemValues[Code]>(words.found, () => 'not repaired'),
      clear: outcome<object>(
        () => words.clear,
        () => 'nothing to repair',
      ),
    },
    check({ looks, canvas }) {
      if (words.unknown !== undefined && looks.some((look) => look.pass === null)) {
        return { severity: 'unknown', code: 'unknown', values: {} };
      }
      for (const look of looks) {
        const found = diagnoseMaster({ ...look, canvases: [canvas] }).find(
          (problem): problem is Extract<Problem, { code: Code }> =>
            problem.code === code && problem.weight !== 'fine' && !problem.repaired,
        );
        if (!found) continue;
        const values = found.values as ProblemValues[Code];
        return { severity: 'warn', code: 'found', values, fix: toFix(look, found) };
      }
      return { severity: 'pass', code: 'clear', values: {} };
    },
  });

function toFix({ master, source }: MasterAnalysis, { offers }: Problem) {
  const [offer] = offers;
  if (!offer) return undefined;
  const rates = toRateChange(source, toSource(master, offer.repairs));
  return { fix: 'repair', values: { ...offer, master: master.id, rates } } as const;
}
