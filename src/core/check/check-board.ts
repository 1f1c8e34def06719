import { type Clip, clipName, type CheckOverride } from '../job/clip';
import type { Work } from '../job/job';
import type { Canvas } from '../layout/canvas';
import { type OutletPlacement, OWN_KEY, listTargets } from '../outlets/outlets';
import { createCheckInput, type CheckContext, type PlannedInput } from './check-input';
import type { Finding } from './finding';
import { collectFindings } from './findings';
import type { Severity } from './rule';

/** A clip on a canvas for a placement: what was found there. */
export interface BoardCell {
  clip: string;
  /** The clip's name with its part. */
  clipName: string;
  canvas: string;
  /** The key of the placement that it is made for, also where no sheet has that; and what it is called. */
  placement: string;
  label: string;
  findings: Finding[];
  /** Rules whose stop the person let pass on this canvas, with the reason. */
  overrides: CheckOverride[];
}

/** From the best to the worst. */
const RANK: Record<Severity, number> = { pass: 0, unknown: 1, note: 2, warn: 3, stop: 4 };

export const rankSeverity = (severity: Severity): number => RANK[severity];

/** How a finding counts once overrides are heard: a stop that was let pass is a note. */
export const countWhole = ({ rule, severity }: Finding, overrides: readonly CheckOverride[]): Severity =>
  severity === 'stop' && overrides.some((override) => override.rule === rule) ? 'note' : severity;

/** The worst of some findings, as they count. */
export function findWorstSeverity({
  findings,
  overrides,
}: Pick<BoardCell, 'findings' | 'overrides'>): Severity {
  return findings
    .map((finding) => countWhole(finding, overrides))
    .reduce<Severity>((worst, next) => (RANK[next] > RANK[worst] ? next : worst), 'pass');
}

/** A canvas whose sheet is gone is judged as a size of its own, and still made for its placement. */
const toAskedKey = ({ placement }: Canvas, { key }: OutletPlacement): string =>
  key === OWN_KEY ? (placement ?? OWN_KEY) : key;

/** The cell of a canvas's own placement, of all cells of a job. */
export const ownCell = (
  cells: readonly BoardCell[],
  clip: Pick<Clip, 'id'>,
  canvas: string,
): BoardCell | undefined => cells.find((cell) => cell.clip === clip.id && cell.canvas === canvas);

/** Lists what is judged: every clip on every canvas for every placement that it is made for. */
function listCheckSubjects(
  work: Work,
  { sheets }: CheckContext,
): { clip: Clip; canvas: Canvas; target: OutletPlacement }[] {
  return work.edit.clips.flatMap((clip) =>
    clip.canvases.flatMap((canvas) =>
      listTargets(sheets, canvas).map((target) => ({ clip, canvas, target })),
    ),
  );
}

/** A cell as it was judged last: the rules' input, and their findings. */
interface CellResult extends PlannedInput {
  findings: Finding[];
}

/** The check of a whole job, that remembers what it found: only rules whose subject has changed are asked again. */
export class CheckBoard {
  private known = new Map<string, CellResult>();

  /** @returns a cell for each clip, canvas and placement, in the job's order. */
  check(work: Work, known: CheckContext): BoardCell[] {
    const next = new Map<string, CellResult>();
    const cells = listCheckSubjects(work, known).map(({ clip, canvas, target }): BoardCell => {
      const key = `${clip.id} ${canvas.id} ${target.key}`;
      // The same canvas for another placement now, and the same cell before.
      const before = [next.get(`${clip.id} ${canvas.id}`), this.known.get(key)].filter(
        (old) => old !== undefined,
      );
      const looked = createCheckInput({ work, clip, canvas, target }, known, before);
      const findings = collectFindings(looked.input, before);
      next.set(key, { ...looked, findings });
      next.set(`${clip.id} ${canvas.id}`, { ...looked, findings });
      const overrides = clip.overrides.filter((override) => override.canvas === canvas.id);
      return {
        ...{ clip: clip.id, clipName: clipName(clip), canvas: canvas.id },
        ...{ placement: toAskedKey(canvas, target), label: target.label, findings, overrides },
      };
    });
    // What is no longer there is forgotten.
    this.known = next;
    return cells;
  }
}
