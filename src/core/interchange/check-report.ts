import { toCsv } from './csv';
import { z } from 'zod';
import { boundedInt, MAX_SIDE_PIXELS } from '../figures/bounded';
import { type BoardCell, countWhole, rankSeverity } from '../check/check-board';
import { type Finding, findingWords, measuredWords, ruleName } from '../check/finding';
import { onCanvas, onClip, type Work } from '../job/job';
import { activeCanvas } from '../job/clip';
import { activeClip } from '../job/job';
import { findPlacement, findTarget } from '../outlets/outlets';
import type { Sheets } from '../outlets/rule-sheet';

const FORMAT = 'gusset-check-report';
const REPORT_VERSION = 1;

const rowSchema = z.object({
  job: z.string(),
  clip: z.string(),
  /** Of the canvas, in pixels. */
  width: boundedInt(0, MAX_SIDE_PIXELS),
  height: boundedInt(0, MAX_SIDE_PIXELS),
  placement: z.string(),
  /** Of the rule sheet that it was judged by; empty for a size of its own. */
  sheetDate: z.string(),
  rule: z.string(),
  result: z.enum(['pass', 'unknown', 'note', 'warn', 'stop']),
  measured: z.string(),
  words: z.string(),
  /** Why a stop was let pass; empty where none was. */
  override: z.string(),
});
export type ReportRow = z.infer<typeof rowSchema>;

const reportSchema = z.object({
  format: z.literal(FORMAT),
  schemaVersion: z.literal(REPORT_VERSION),
  /** When it was made, ISO 8601. */
  at: z.iso.datetime(),
  findings: z.array(rowSchema),
});

/** A job and how it was judged. */
export interface JudgedJob {
  title: string;
  work: Work;
  cells: readonly BoardCell[];
}

/** Every finding of some jobs, the worst first in each cell. */
export function reportRows(jobs: readonly JudgedJob[], sheets: Sheets): ReportRow[] {
  return jobs.flatMap(({ title, work, cells }) =>
    cells.flatMap((cell) => {
      const canvas = activeCanvas(activeClip(onCanvas(onClip(work, cell.clip), cell.canvas).edit));
      const target = findPlacement(sheets, cell.placement) ?? findTarget(sheets, canvas);
      const rank = (finding: Finding) => rankSeverity(countWhole(finding, cell.overrides));
      return [...cell.findings]
        .sort((a, b) => rank(b) - rank(a))
        .map((finding): ReportRow => ({
          job: title,
          clip: cell.clipName,
          width: canvas.width,
          height: canvas.height,
          placement: cell.label,
          sheetDate: findPlacement(sheets, cell.placement)?.sheet.date ?? '',
          rule: ruleName(finding.rule),
          result: finding.severity,
          measured: measuredWords(finding),
          words: findingWords(finding, target),
          override: cell.overrides.find(({ rule }) => rule === finding.rule)?.reason ?? '',
        }));
    }),
  );
}

/** A report as CSV. */
export const reportCsv = (rows: readonly ReportRow[]): string => toCsv(rows, rowSchema.keyof().options);

/** A report as JSON. @param at when it is made, ISO 8601. */
export const reportJson = (rows: readonly ReportRow[], at: string): string =>
  `${JSON.stringify({ format: FORMAT, schemaVersion: REPORT_VERSION, at, findings: rows }, null, 2)}\n`;

/** The published form of the JSON file, as JSON Schema (draft 2020-12). */
export const reportJsonSchema = (): object => z.toJSONSchema(reportSchema, { io: 'input' });
