import { z } from 'zod';
import { type Cut, cutSchema } from '../cut/cut';
import { framingSchema, plainFraming, type Framing } from '../framing/framing';
import { type Canvas, canvasOf, canvasSchema, MAIN_TRACK } from '../layout/canvas';
import { PLACEMENTS, placementOf } from '../outlets/outlets';
import { masterSchema, type Master } from './master';
import { exportRecordSchema, postRecordSchema } from './records';

export const shotSchema = z.object({
  id: z.string(),
  in: z.number().int().nonnegative(),
  out: z.number().int().positive(),
});
export type Shot = z.infer<typeof shotSchema>;

/** Who may see a post. */
export const audienceSchema = z.enum(['private', 'unlisted', 'public']);
export type Audience = z.infer<typeof audienceSchema>;

/** The words that go with a post. */
export const wordsSchema = z.object({
  title: z.string(),
  description: z.string(),
  /** Without the leading mark. */
  tags: z.array(z.string()),
});
export type Words = z.infer<typeof wordsSchema>;

/** What a person decides in a job: all of it can be undone. */
export const editSchema = z.object({
  shots: z.array(shotSchema).min(1),
  cut: cutSchema,
  framings: z.array(framingSchema),
  canvases: z.array(canvasSchema).min(1),
  words: wordsSchema,
  audience: audienceSchema,
  /** Rules whose stop the person overrode by name. */
  overrides: z.array(z.string()),
  /** Video bits a second, or null for the worked-out default. */
  videoBits: z.number().int().positive().nullable(),
});
export type Edit = z.infer<typeof editSchema>;

/** The version of the stored job that this program writes. */
export const JOB_VERSION = 1;

/** One master and all that is made from it. */
export const jobSchema = z.object({
  schemaVersion: z.literal(JOB_VERSION),
  id: z.string().regex(/^[A-Za-z0-9-]+$/),
  title: z.string(),
  /** ISO 8601. */
  createdAt: z.iso.datetime(),
  changedAt: z.iso.datetime(),
  master: masterSchema,
  edit: editSchema,
  exports: z.array(exportRecordSchema),
  posts: z.array(postRecordSchema),
});
export type Job = z.infer<typeof jobSchema>;

/** What a new job takes besides its master. */
export interface NewJob {
  id: string;
  title: string;
  /** ISO 8601. */
  now: string;
  master: Master;
  shots?: Shot[];
  framings?: Framing[];
}

/** A job ready to work on: the whole master kept, filled into the first placement, nothing posted. */
export function newJob({ id, title, now, master, shots, framings }: NewJob): Job {
  const first = PLACEMENTS[0];
  if (!first) throw new RangeError('no rule sheet ships with this program');
  const cut: Cut = [{ in: 0, out: master.frames }];
  const edit: Edit = {
    shots: shots ?? [{ id: 'shot-1', in: 0, out: master.frames }],
    cut,
    framings: framings ?? [],
    canvases: [canvasOf(first.key, sizeOf(first.key), master.rate, 'canvas-1')],
    words: { title, description: '', tags: [] },
    audience: 'private',
    overrides: [],
    videoBits: null,
  };
  return {
    schemaVersion: JOB_VERSION,
    id,
    title,
    createdAt: now,
    changedAt: now,
    master,
    edit,
    exports: [],
    posts: [],
  };
}

/** The canvas size that a placement asks for. */
export function sizeOf(placementKey: string): { width: number; height: number } {
  const { width, height } = placementOf(placementKey).placement;
  return { width, height };
}

/** The canvas being worked on. */
export function activeCanvas(edit: Edit): Canvas {
  const canvas = edit.canvases[0];
  if (!canvas) throw new RangeError('a job has at least one canvas');
  return canvas;
}

/** The shot that a master frame lies in; frames past the last shot belong to it. */
export function shotAt(edit: Edit, frame: number): Shot {
  const shot =
    edit.shots.find((one) => frame >= one.in && frame < one.out) ?? edit.shots[edit.shots.length - 1];
  if (!shot) throw new RangeError('a job has at least one shot');
  return shot;
}

/** The main track's framing of a shot; untouched shots have the plain one. */
export function framingOf(edit: Edit, shot: Shot): Framing {
  const known = edit.framings.find((one) => one.shot === shot.id && one.track === MAIN_TRACK);
  return known ?? plainFraming(shot.id, MAIN_TRACK, shot.in);
}
