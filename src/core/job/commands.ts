import { type Boundary, reshot } from '../cut/shots';
import type { Cut } from '../cut/cut';
import { type Framing, plainFraming } from '../framing/framing';
import type { Canvas } from '../layout/canvas';
import { MAIN_TRACK, tracksOf } from '../layout/layout';
import { placementOf } from '../outlets/outlets';
import { framingFor } from '../layout/framing-for';
import type { FrameRate } from '../time/frame-rate';
import { CANVAS_ACTS, CLIP_ACTS, CUT_ACTS, FRAMING_ACTS, SHOT_ACTS } from './acts';
import { activeCanvas, type Clip, type Words } from './clip';
import type { Audience } from '../outlets/audience';
import { activeClip, type Edit, sizeOf } from './job';
import type { Repairs } from '../master/repairs';
import { retimed } from './retime';
import type { Shot } from '../cut/shot';

/** Which framings a change is for: those that all canvases share, or those of one canvas of the clip. */
export type Owner = 'shared' | { canvas: string };

/** Every change that a person can make to a job, by name. */
export type Command =
  | { type: 'set-cut'; act: keyof typeof CUT_ACTS; cut: Cut }
  | {
      type: 'set-shots';
      act: keyof typeof SHOT_ACTS;
      master: string;
      /** That master's shots as they are, its new boundaries, and its length. */
      old: readonly Shot[];
      boundaries: readonly Boundary[];
      frames: number;
    }
  | { type: 'set-repairs'; master: string; repairs: Repairs; rates: { before: FrameRate; after: FrameRate } }
  | { type: 'set-clips'; act: keyof typeof CLIP_ACTS; clips: Clip[]; clip: string }
  | { type: 'set-canvases'; act: keyof typeof CANVAS_ACTS; canvases: Canvas[]; canvas: string }
  | { type: 'choose-placement'; placement: string }
  | { type: 'set-rate'; rate: FrameRate }
  | { type: 'set-framings'; act: keyof typeof FRAMING_ACTS; owner: Owner; framings: Framing[] }
  | { type: 'reset-framing'; shot: string; track: string; owner: Owner }
  | { type: 'detach'; canvas: string; shot: Pick<Shot, 'id' | 'in'> }
  | { type: 'attach'; canvas: string; shot: string }
  | { type: 'fill-canvas' }
  | { type: 'tick-shot'; shot: string; signature: string | null }
  | { type: 'set-video-bits'; bits: number | null }
  | { type: 'set-words'; words: Words }
  | { type: 'set-audience'; audience: Audience }
  | { type: 'set-override'; rule: string; on: boolean };

/** What a command is called where it can be undone. */
export function commandName(command: Command): string {
  switch (command.type) {
    case 'set-cut':
      return CUT_ACTS[command.act];
    case 'set-shots':
      return SHOT_ACTS[command.act];
    case 'set-clips':
      return CLIP_ACTS[command.act];
    case 'set-canvases':
      return CANVAS_ACTS[command.act];
    case 'set-framings':
      return FRAMING_ACTS[command.act];
    case 'set-repairs':
      return 'repair the master';
    case 'choose-placement':
      return 'choose the canvas';
    case 'set-rate':
      return 'choose the rate';
    case 'reset-framing':
      return 'reset the framing';
    case 'detach':
      return 'frame this canvas by itself';
    case 'attach':
      return 'follow the other canvases';
    case 'fill-canvas':
      return 'fill the canvas';
    case 'tick-shot':
      return 'tick a shot';
    case 'set-video-bits':
      return 'set the bit rate';
    case 'set-words':
      return 'change the words';
    case 'set-audience':
      return 'choose who may see it';
    case 'set-override':
      return 'override a stop';
  }
}

/** The edit after a command. Pure; places are kept in the picture's own coordinates, so no command loses any. */
export function applyCommand(edit: Edit, command: Command): Edit {
  const clip = activeClip(edit);
  switch (command.type) {
    case 'set-cut':
      return withClip(edit, { ...clip, cut: command.cut });
    case 'set-shots':
      return withShots(edit, command);
    case 'set-repairs': {
      const { before, after } = command.rates;
      const repaired = { ...edit, repairs: { ...edit.repairs, [command.master]: command.repairs } };
      return retimed(repaired, command.master, before, after);
    }
    case 'set-clips':
      return { ...edit, clips: command.clips, clip: command.clip };
    case 'set-canvases':
      return withClip(edit, { ...clip, canvases: command.canvases, canvas: command.canvas });
    case 'choose-placement':
      return withClip(edit, choosePlacement(clip, command.placement));
    case 'set-rate':
      return withClip(edit, withCanvas(clip, { ...activeCanvas(clip), rate: command.rate }));
    case 'set-framings':
      return withFramings(edit, command.owner, (known) => [
        ...known.filter((one) => !command.framings.some((other) => sameKey(one, other))),
        ...command.framings,
      ]);
    case 'reset-framing':
      return withFramings(edit, command.owner, (known) => reset(known, command));
    case 'detach':
      return withClip(edit, withCanvas(clip, detached(edit, canvasIn(clip, command.canvas), command.shot)));
    case 'attach':
      return withFramings(edit, { canvas: command.canvas }, (known) =>
        known.filter((one) => one.shot !== command.shot),
      );
    case 'fill-canvas':
      return filled(edit, clip);
    case 'tick-shot': {
      const { [command.shot]: _gone, ...others } = edit.ticks;
      const { signature } = command;
      return { ...edit, ticks: signature === null ? others : { ...others, [command.shot]: signature } };
    }
    case 'set-video-bits':
      return withClip(edit, { ...clip, videoBits: command.bits });
    case 'set-words':
      return withClip(edit, { ...clip, words: command.words });
    case 'set-audience':
      return withClip(edit, { ...clip, audience: command.audience });
    case 'set-override': {
      const others = clip.overrides.filter((rule) => rule !== command.rule);
      return withClip(edit, { ...clip, overrides: command.on ? [...others, command.rule] : others });
    }
  }
}

const sameKey = (a: Pick<Framing, 'shot' | 'track'>, b: Pick<Framing, 'shot' | 'track'>): boolean =>
  a.shot === b.shot && a.track === b.track;

function withFramings(edit: Edit, owner: Owner, change: (known: Framing[]) => Framing[]): Edit {
  if (owner === 'shared') return { ...edit, framings: change(edit.framings) };
  const clip = activeClip(edit);
  const canvas = canvasIn(clip, owner.canvas);
  return withClip(edit, withCanvas(clip, { ...canvas, detached: change(canvas.detached) }));
}

/** A shared framing goes; a detached one becomes plain, so that the canvas stays by itself. */
function reset(known: Framing[], command: Extract<Command, { type: 'reset-framing' }>): Framing[] {
  const others = known.filter((one) => !sameKey(one, command));
  if (command.owner === 'shared') return others;
  const frame = known.find((one) => sameKey(one, command))?.keyframes[0]?.frame ?? 0;
  return [...others, plainFraming(command.shot, command.track, frame)];
}

/** A canvas with framings of its own for a shot, that begin as those it followed. */
function detached(edit: Edit, canvas: Canvas, shot: Pick<Shot, 'id' | 'in'>): Canvas {
  const own = tracksOf(canvas.layout).map((track) => framingFor(canvas, edit.framings, shot, track));
  return { ...canvas, detached: [...canvas.detached.filter((one) => one.shot !== shot.id), ...own] };
}

/** Every window of the canvas being worked on fills again; only framings that were fitted change. */
function filled(edit: Edit, clip: Clip): Edit {
  const canvas = activeCanvas(clip);
  const fill = (one: Framing): Framing =>
    one.fit && one.track === MAIN_TRACK ? { ...one, fit: false } : one;
  const follows = (one: Framing) => !canvas.detached.some((other) => sameKey(one, other));
  const framings = edit.framings.map((one) => (follows(one) ? fill(one) : one));
  return withClip(
    { ...edit, framings },
    withCanvas(clip, { ...canvas, detached: canvas.detached.map(fill) }),
  );
}

function withShots(
  edit: Edit,
  { master, old, boundaries, frames }: Extract<Command, { type: 'set-shots' }>,
): Edit {
  const { shots } = edit;
  const of = (framings: Framing[]) => reshot({ shots, framings }, master, old, boundaries, frames);
  const clips = edit.clips.map((clip) => ({
    ...clip,
    canvases: clip.canvases.map((one) => ({ ...one, detached: of(one.detached).framings })),
  }));
  return { ...edit, ...of(edit.framings), clips };
}

function withClip(edit: Edit, clip: Clip): Edit {
  return { ...edit, clips: edit.clips.map((one) => (one.id === clip.id ? clip : one)) };
}

function withCanvas(clip: Clip, canvas: Canvas): Clip {
  return { ...clip, canvases: clip.canvases.map((one) => (one.id === canvas.id ? canvas : one)) };
}

function canvasIn(clip: Clip, id: string): Canvas {
  const canvas = clip.canvases.find((one) => one.id === id);
  if (!canvas) throw new RangeError(`the clip has no canvas ${id}`);
  return canvas;
}

/** A new size keeps layout, framings and rate; overrides were given for the old placement's limits and end with it. */
function choosePlacement(clip: Clip, key: string): Clip {
  placementOf(key);
  const canvas = activeCanvas(clip);
  const sized = { ...canvas, ...sizeOf(key), placement: key };
  const overrides = key === canvas.placement ? clip.overrides : [];
  return { ...withCanvas(clip, sized), overrides };
}
