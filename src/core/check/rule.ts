import type { Cut } from '../cut/cut';
import type { Words } from '../job/clip';
import type { Canvas } from '../layout/canvas';
import type { Source } from '../master/source';
import type { Audience } from '../outlets/audience';
import type { OutletPlacement } from '../outlets/outlets';
import type { Coverage } from '../proof/coverage';
import type { EncodeSettings } from '../render/encode-settings';
import type { RenderPlan } from '../render/plan';
import type { ClipText } from '../words/clip-text';
import type { OfferedFix } from './fixes';
import type { MasterAnalysis } from './master-analysis';

/**
 * How serious a finding is. A stop keeps the export or the post back until it is fixed or overridden; what only the
 * look at the master can tell is unknown until that is done.
 */
export type Severity = 'pass' | 'unknown' | 'note' | 'warn' | 'stop';

/** Action that a stop of a rule blocks. */
export type BlockedAction = 'export' | 'post';

/** Input of the rules on a post's words. */
export interface PostInput {
  words: Words;
  audience: Audience;
  /** Tags that some outlet requires: they say nothing of the clip. */
  requiredTags: readonly string[];
  target: OutletPlacement;
}

/** Input of the rules: one canvas of a job, with everything already derived from it. */
export interface CheckInput extends PostInput {
  cut: Cut;
  /** The words on the picture. */
  text: ClipText;
  /** Masters that the clip takes ranges from, in the order of the cut. */
  sources: readonly Source[];
  /** The same masters, with what is known of their files. */
  looks: readonly MasterAnalysis[];
  canvas: Canvas;
  plan: RenderPlan;
  coverage: Coverage;
  /** Encode settings of the export. */
  making: EncodeSettings;
  /** Measured video bitrate of trial pieces; null where none were encoded. */
  triedBits: number | null;
}

/** Wording of one outcome of a rule: as a sentence, and as figures. */
export interface Outcome<Values> {
  /** Says what happened, what it means, what to do. */
  words(values: Values, target: OutletPlacement): string;
  /** Says the measured value and its limit. */
  figures(values: Values): string;
}

// eslint-disable-next-line @typescript-eslint/no-explicit-any -- each outcome has values of its own type
type Outcomes = Record<string, Outcome<any>>;
type ValuesOf<O> = O extends Outcome<infer Values> ? Values : never;

/** Outcome that a rule found, with the values that its words need. */
export type OutcomeResult<O extends Outcomes> = {
  [Code in keyof O & string]: {
    code: Code;
    severity: Severity;
    values: ValuesOf<O[Code]>;
    /** Output frame to look at. */
    frame?: number | undefined;
    fix?: OfferedFix | undefined;
  };
}[keyof O & string];

/** A rule: one file of rules/ each. */
export interface Rule<Input, O extends Outcomes> {
  /** Name of the rule. */
  name: string;
  holds: BlockedAction;
  /** It speaks of an outlet's limits: a canvas of an own size has none. */
  outlet?: true;
  /** Parts of the input that it depends on: while they are the same, so is its result. */
  reads: readonly (keyof Input)[];
  outcomes: O;
  check(input: Input): OutcomeResult<O>;
}

/** A rule as it is declared: it is given what it says that it reads, and nothing else. */
type RuleDeclaration<Input, Read extends keyof Input, O extends Outcomes> = Omit<
  Rule<Input, O>,
  'holds' | 'reads' | 'check'
> & { reads: readonly Read[]; check(input: Pick<Input, Read>): OutcomeResult<O> };

/** Declares a rule on a canvas of a clip. */
export const exportRule = <O extends Outcomes, Read extends keyof CheckInput>(
  rule: RuleDeclaration<CheckInput, Read, O>,
): Rule<CheckInput, O> => ({
  ...rule,
  holds: 'export',
});

/** Declares a rule on what goes out with a post. */
export const postRule = <O extends Outcomes, Read extends keyof PostInput>(
  rule: RuleDeclaration<PostInput, Read, O>,
): Rule<PostInput, O> => ({
  ...rule,
  holds: 'post',
});

/** Declares one outcome of a rule, by the values that its words need. */
export const outcome = <Values>(
  words: Outcome<Values>['words'],
  figures: Outcome<Values>['figures'],
): Outcome<Values> => ({ words, figures });
