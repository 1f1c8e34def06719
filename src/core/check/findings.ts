import { OWN_KEY } from '../outlets/outlets';
import type { Finding } from './finding';
import type { CheckInput, PostInput, Rule } from './rule';
import { EXPORT_RULES, POST_RULES } from './rules';

type AnyRule<Input> = Pick<Rule<Input, never>, 'holds' | 'outlet' | 'reads'> & {
  check(input: Input): object;
};

/** Findings of rules, and what they depended on. */
export interface CheckResult {
  input: CheckInput;
  findings: Finding[];
}

/** Findings of every rule. @param before where a rule looked at the same, it is not asked again. */
export function collectFindings(input: CheckInput, before: readonly CheckResult[] = []): Finding[] {
  return [...runRules(EXPORT_RULES, input, before), ...runRules(POST_RULES, input, before)];
}

/** Findings of the rules on what goes out with a post. */
export const checkPost = (input: PostInput): Finding[] => runRules(POST_RULES, input, []);

function runRules<Input extends PostInput>(
  rules: Record<string, AnyRule<Input>>,
  input: Input,
  before: readonly { input: Input; findings: Finding[] }[],
): Finding[] {
  const own = input.target.key === OWN_KEY;
  return Object.entries(rules)
    .filter(([, rule]) => !(own && rule.outlet))
    .map(([name, { holds, reads, check }]) => {
      const same = before.find((old) => reads.every((read) => old.input[read] === input[read]));
      const known = same?.findings.find(({ rule }) => rule === name);
      return known ?? ({ rule: name, holds, ...check(input) } as Finding);
    });
}
