import type { OutletPlacement } from '../outlets/outlets';
import type { OutcomeResult, BlockedAction, Outcome } from './rule';
import { type RuleId, RULES } from './rules';

/** Result of one rule, as data: its words are the rule's own. */
export type Finding = {
  [R in RuleId]: { rule: R; holds: BlockedAction } & OutcomeResult<(typeof RULES)[R]['outcomes']>;
}[RuleId];

/** Rule, outcome and values belong together in a finding; the table knows each. */
const getOutcome = ({ rule, code }: Finding): Outcome<unknown> =>
  (RULES[rule].outcomes as unknown as Record<string, Outcome<unknown>>)[code] as Outcome<unknown>;

/** Name of a rule. */
export const ruleName = (rule: RuleId): string => RULES[rule].name;

/** A finding in words: what happened, what it means, what to do. */
export const findingWords = (finding: Finding, target: OutletPlacement): string =>
  getOutcome(finding).words(finding.values, target);

/** Measured value and its limit, in words. */
export const measuredWords = (finding: Finding): string => getOutcome(finding).figures(finding.values);
