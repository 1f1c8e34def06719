import { z } from 'zod';
import { bitrate } from '../figures/bounded';
import { MIN_VIDEO_BITRATE, MAX_VIDEO_BITRATE } from '../rate/bit-rate';
import { type Encoding, PLAIN_ENCODING } from '../rate/encoding';
import { computeDelta, withDelta, removeDelta } from './delta';
import { EMPTY_HISTORY, type History, type HistoryStep } from './history';
import { type Edit, editSchema } from './job';
import { computeSignature } from './signature';

/** An edit of version 4: one bit rate for all canvases of a clip. */
const editFour = z.looseObject({
  clips: z.array(
    z.looseObject({
      id: z.string(),
      canvases: z.array(z.looseObject({ id: z.string() })),
      videoBits: bitrate().nullable(),
    }),
  ),
});
type EditFour = z.infer<typeof editFour>;

const fourthVersion = z.looseObject({
  edit: editFour,
  exports: z.array(z.looseObject({ clip: z.string(), canvas: z.string(), signature: z.string() })),
});

/** A stored job of version 4 as one of version 5. @throws ZodError for what never was such a job. */
export function fromFourth(value: unknown): unknown {
  const job = fourthVersion.parse(value);
  const edit = editFromFourth(job.edit);
  return {
    ...job,
    schemaVersion: 5,
    edit,
    exports: job.exports.map((record) => ({
      ...record,
      signature: signatureFromFourth(job.edit, edit, record),
    })),
  };
}

/** An edit of version 4 as one of version 5: each canvas has its own bit rate. @throws ZodError */
export function editFromFourth(value: unknown): Edit {
  const old = editFour.parse(value);
  return editSchema.parse({
    ...old,
    clips: old.clips.map(({ videoBits, ...clip }) => ({
      ...clip,
      canvases: clip.canvases.map((canvas) =>
        videoBits === null ? canvas : { ...canvas, encoding: toEncoding(videoBits) },
      ),
    })),
  });
}

function toEncoding(videoBits: number): Encoding {
  const bits = Math.min(MAX_VIDEO_BITRATE, Math.max(MIN_VIDEO_BITRATE, videoBits));
  return { ...PLAIN_ENCODING, rate: { kind: 'variable', bits, most: null } };
}

/** An export that was of the clip as it is stays so; any other is of an earlier one. */
function signatureFromFourth(
  old: EditFour,
  edit: Edit,
  { clip, canvas, signature }: { clip: string; canvas: string; signature: string },
): string {
  const was = old.clips.find(({ id }) => id === clip);
  const there = edit.clips.find(({ id }) => id === clip)?.canvases.some(({ id }) => id === canvas);
  if (!was || !there) return signature;
  const clips = edit.clips.map((other) => (other.id === clip ? { ...other, canvas } : other));
  const now = { ...edit, clips, clip };
  return computeSignature(now, was.videoBits) === signature ? computeSignature(now) : signature;
}

/**
 * The history of a job of version 4: what each step changed in the form of today. One that does not fit costs undo, not
 * the job.
 * @param then the job's edit as it was stored.
 */
export function historyFromFourth({ past, future }: History, then: unknown): History {
  try {
    const before = replaySteps(then, past, removeDelta).reverse();
    const after = replaySteps(then, future, withDelta);
    return { past: steps(before, past), future: steps(after, [...future].reverse()).reverse() };
  } catch {
    return EMPTY_HISTORY;
  }
}

/** Edits from one on, along steps of which the last is the next. */
function replaySteps(then: unknown, steps: readonly HistoryStep[], go: typeof withDelta): Edit[] {
  const edits = [then];
  for (const { delta } of [...steps].reverse()) edits.push(go(edits[edits.length - 1], delta));
  return edits.map(editFromFourth);
}

/** The steps between edits, under their names. */
const steps = (edits: readonly Edit[], named: readonly HistoryStep[]): HistoryStep[] =>
  edits.slice(1).flatMap((edit, i) => {
    const delta = computeDelta(edits[i], edit);
    return delta ? [{ command: named[i]?.command ?? '', delta }] : [];
  });
