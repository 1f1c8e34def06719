import type { Command } from '../job/commands';
import type { MasterLengths } from '../cut/cut';
import type { Clip } from '../job/clip';
import type { Source } from '../master/source';
import type { Canvas } from '../layout/canvas';
import type { Coverage } from '../proof/coverage';
import type { OutletPlacement } from '../outlets/outlets';
import type { RenderPlan } from '../render/plan';

/** How serious a finding is. A stop keeps the export or the post back until it is fixed or overridden. */
export type Severity = 'pass' | 'note' | 'warn' | 'stop';

/** What a stop of a rule keeps back. */
export type Holds = 'export' | 'post';

/** One rule's result, as data; its words are made in words.ts. */
export interface Finding {
  rule: RuleId;
  severity: Severity;
  /** Which of the rule's outcomes this is. */
  code: string;
  measured: number | string;
  limit: number | string | null;
  unit: string;
  holds: Holds;
  /** Output frame to look at. */
  at?: number;
  fix?: { label: string; command: Command };
}

export const RULE_IDS = [
  'length',
  'size',
  'coverage',
  'rate',
  'enlargement',
  'panes',
  'file-size',
  'audio',
  'title',
  'tag',
] as const;
export type RuleId = (typeof RULE_IDS)[number];

/** What rules look at: one canvas of a job, with what was already worked out of it. */
export interface CheckInput {
  clip: Clip;
  /** Masters that the clip takes ranges from, in the order of the cut. */
  sources: readonly Source[];
  masters: MasterLengths;
  canvas: Canvas;
  target: OutletPlacement;
  plan: RenderPlan;
  coverage: Coverage;
  /** Video bits a second of the export. */
  videoBits: number;
}

/** A rule: one file of rules/ each. */
export interface Rule {
  id: RuleId;
  /** It speaks of an outlet's limits: a canvas of an own size has none. */
  outlet?: true;
  check(input: CheckInput): Finding;
}
