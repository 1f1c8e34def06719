import { z } from 'zod';
import { bitrate, frameIndex } from '../figures/bounded';
import { shortHash } from '../figures/short-hash';
import { framingSchema } from '../framing/framing';
import { canvasSchema } from '../layout/canvas';
import type { Edit } from './job';
import { computeSignature } from './signature';

const clip = z.looseObject({
  id: z.string(),
  cut: z.array(z.object({ master: z.string(), in: frameIndex(), out: frameIndex() })),
  canvases: z.array(canvasSchema).min(1),
  canvas: z.string(),
  overrides: z.array(z.string()),
  videoBits: bitrate().nullable(),
});
const shot = z.looseObject({
  id: z.string(),
  master: z.string(),
  in: frameIndex(),
  out: frameIndex(),
  live: z.unknown(),
});
/** An edit of version 3: overrides for all canvases of a clip, ticks and signatures as long texts. */
const editThree = z.looseObject({
  shots: z.array(shot),
  framings: z.array(framingSchema),
  repairs: z.record(z.string(), z.unknown()),
  ticks: z.record(z.string(), z.string()),
  clips: z.array(clip).min(1),
  clip: z.string(),
});
type EditThree = z.infer<typeof editThree>;

const thirdVersion = z.looseObject({
  masters: z.array(
    z.looseObject({
      id: z.string(),
      audio: z.looseObject({}).nullable(),
      audioTracks: z.array(z.looseObject({})),
    }),
  ),
  edit: editThree,
  exports: z.array(z.looseObject({ clip: z.string(), canvas: z.string(), signature: z.string() })),
});

/** Why a stop of before was let pass: nobody was asked then. */
const NO_REASON = 'Overridden in an earlier version';

/** A stored job of version 3 as one of version 4. @throws ZodError for what never was such a job. */
export function fromThird(value: unknown): unknown {
  const job = thirdVersion.parse(value);
  const masterIds = job.masters.map((master) => master.id);
  const edit = editFromThird(job.edit, masterIds);
  const shot = new Set(edit.shots.map((shot) => shot.master));
  return {
    ...job,
    schemaVersion: 4,
    masters: job.masters.map(({ audio, audioTracks, ...master }) => ({
      ...master,
      audio: audio && { ...audio, decodable: true },
      audioTracks: audioTracks.map((track) => ({ ...track, decodable: true })),
      soundTrack: audio ? 0 : null,
    })),
    offered: masterIds.filter((id) => shot.has(id)),
    edit,
    exports: job.exports.map((record) => ({
      ...record,
      signature: signatureFromThird(job.edit, edit, record),
    })),
  };
}

/** An edit of version 3 as one of version 4. @throws ZodError */
export function editFromThird(value: unknown, masterIds: readonly string[]) {
  const old = editThree.parse(value);
  const withShots = new Set(old.shots.map((shot) => shot.master));
  const shots = new Set([
    ...old.shots.map((shot) => shot.id),
    ...masterIds.filter((id) => !withShots.has(id)).map((id) => `${id}-1`),
  ]);
  // Framings of shots that went away were kept then; they show nowhere.
  const there = <T extends { shot: string }>(framings: T[]) =>
    framings.filter((framing) => shots.has(framing.shot));
  return {
    ...old,
    framings: there(old.framings),
    ticks: Object.fromEntries(
      Object.entries(old.ticks)
        .filter(([id]) => shots.has(id))
        .map(([id, tick]) => [id, shortHash(tick)]),
    ),
    clips: old.clips.map((clip) => ({
      ...clip,
      canvases: clip.canvases.map((canvas) => ({ ...canvas, detached: there(canvas.detached) })),
      overrides: clip.canvases.flatMap(({ id }) =>
        clip.overrides.map((rule) => ({ rule, canvas: id, reason: NO_REASON })),
      ),
    })),
    gone: [],
  };
}

/** An export that was of the clip as it is stays so; any other is of an earlier one. */
function signatureFromThird(
  old: EditThree,
  edit: ReturnType<typeof editFromThird>,
  record: { clip: string; canvas: string; signature: string },
): string {
  const was = old.clips.find((clip) => clip.id === record.clip);
  const canvas = was?.canvases.find((canvas) => canvas.id === record.canvas);
  if (!was || !canvas) return shortHash(record.signature);
  const spans = old.shots.map(({ id, master, in: first, out, live }) => [id, master, first, out, live]);
  const text = JSON.stringify([was.id, was.cut, spans, old.framings, old.repairs, canvas, was.videoBits]);
  if (text !== record.signature) return shortHash(record.signature);
  const clips = edit.clips.map((clip) => (clip.id === was.id ? { ...clip, canvas: canvas.id } : clip));
  const now: unknown = { ...edit, clips, clip: was.id };
  return computeSignature(now as Edit, was.videoBits);
}
