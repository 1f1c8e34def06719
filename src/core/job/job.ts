import { z } from 'zod';
import { framingSchema, type Framing } from '../framing/framing';
import { makeCanvas } from '../layout/canvas';
import { chooseCanvasSize, listPlacements } from '../outlets/outlets';
import type { Sheets } from '../outlets/rule-sheet';
import { type Clip, clipSchema, type GoneClip, goneClipSchema, type Words } from './clip';
import { masterSchema, type Master } from '../master/master';
import { keptPlacesSchema } from './retime';
import { exportRecordSchema, postRecordSchema } from './records';
import { repairsSchema } from '../master/repairs';
import { type Shot, shotSchema } from '../cut/shot';
import { toSource, type Source } from '../master/source';

/** Everything that a person decides in a job: all of it can be undone. */
export const editSchema = z.object({
  /** Of every master: each master's cover it without a gap. A master that has none is one shot. */
  shots: z.array(shotSchema),
  framings: z.array(framingSchema),
  /** By master; one that is not there has none. */
  repairs: z.record(z.string(), repairsSchema),
  /** Shots that a person played and found right, with a hash of what they looked like then. */
  ticks: z.record(z.string(), z.string()),
  clips: z.array(clipSchema).min(1),
  /** Of clips that were removed: what a post of one of their exports needs. */
  gone: z.array(goneClipSchema),
  /** The clip being worked on. */
  clip: z.string(),
  /** By master, places that a change of its rate could not keep. */
  retimed: z.record(z.string(), keptPlacesSchema).optional(),
});
export type Edit = z.infer<typeof editSchema>;

/** The version of the stored job that this program writes. */
export const JOB_VERSION = 5;

/** Masters and all that is made from them. */
export const jobSchema = z.object({
  schemaVersion: z.literal(JOB_VERSION),
  id: z.string().regex(/^[A-Za-z0-9-]+$/),
  title: z.string(),
  /** ISO 8601. */
  createdAt: z.iso.datetime(),
  changedAt: z.iso.datetime(),
  masters: z.array(masterSchema).min(1),
  /** Masters whose found shots were taken, or left, once: they are not taken by themselves again. */
  offered: z.array(z.string()),
  /** By outlet, the rule sheet that it was last judged by: the date of it, and a hash of all that it says. */
  judged: z.record(z.string(), z.object({ date: z.string(), version: z.string() })).optional(),
  edit: editSchema,
  exports: z.array(exportRecordSchema),
  posts: z.array(postRecordSchema),
});
export type Job = z.infer<typeof jobSchema>;

/** Part of a job that drawing and checking need. */
export type Work = Pick<Job, 'masters' | 'edit'>;

/** Settings of a new job besides its master. */
export interface NewJob {
  id: string;
  title: string;
  /** ISO 8601. */
  now: string;
  master: Master;
  sheets: Sheets;
  shots?: Shot[];
  framings?: Framing[];
  words?: Words;
}

/** Size of a first canvas where there is no placement. */
const TALL = { width: 1080, height: 1920 };

/** A job ready to work on: one clip, the whole master kept, filled into the first placement, nothing posted. */
export function newJob({ id, title, now, master, sheets, shots, framings, words }: NewJob): Job {
  const [first] = listPlacements(sheets);
  const size = first ? chooseCanvasSize(first) : TALL;
  const clip: Clip = {
    id: 'clip-1',
    name: title,
    part: null,
    cut: [{ master: master.id, in: 0, out: master.frames }],
    canvases: [makeCanvas(first?.key ?? null, size, master.rate, 'canvas-1')],
    canvas: 'canvas-1',
    words: words ?? { title, description: '', tags: [] },
    audience: 'private',
    overrides: [],
  };
  return {
    schemaVersion: JOB_VERSION,
    id,
    title,
    createdAt: now,
    changedAt: now,
    masters: [master],
    offered: [],
    edit: {
      shots: shots ?? [],
      framings: framings ?? [],
      repairs: {},
      ticks: {},
      clips: [clip],
      gone: [],
      clip: clip.id,
    },
    exports: [],
    posts: [],
  };
}

/** The clip being worked on. */
export function activeClip(edit: Edit): Clip {
  const clip = edit.clips.find((clip) => clip.id === edit.clip) ?? edit.clips[0];
  if (!clip) throw new RangeError('a job has at least one clip');
  return clip;
}

/** A clip of a job, or what stays of one that was removed. */
export function findClip({ clips, gone }: Edit, id: string): Clip | GoneClip | null {
  return clips.find((clip) => clip.id === id) ?? gone.find((clip) => clip.id === id) ?? null;
}

/** A job with another of its clips being worked on. */
export function onClip<T extends Work>(work: T, clip: string): T {
  return work.edit.clip === clip ? work : { ...work, edit: { ...work.edit, clip } };
}

/** A job with another canvas of its clip being worked on. */
export function onCanvas<T extends Work>(work: T, canvas: string): T {
  const { edit } = work;
  const clip = activeClip(edit);
  if (clip.canvas === canvas) return work;
  const clips = edit.clips.map((kept) => (kept.id === clip.id ? { ...kept, canvas } : kept));
  return { ...work, edit: { ...edit, clips } };
}

/** The master that a job was made from first. */
export function mainMaster({ masters }: Pick<Job, 'masters'>): Master {
  const master = masters[0];
  if (!master) throw new RangeError('a job has at least one master');
  return master;
}

/** A master of a job with its repairs. @throws RangeError for an id that it does not have. */
export function findSource({ masters, edit }: Work, id: string): Source {
  const master = masters.find((master) => master.id === id);
  if (!master) throw new RangeError(`the job has no master ${id}`);
  return toSource(master, edit.repairs[id]);
}

/** Every master of a job, with its repairs. */
export function listSources(work: Work): Source[] {
  return work.masters.map((master) => toSource(master, work.edit.repairs[master.id]));
}
