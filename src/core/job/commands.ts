import type { Cut } from '../cut/cut';
import type { Framing } from '../framing/framing';
import { type Canvas, canvasOf } from '../layout/canvas';
import { placementOf } from '../outlets/outlets';
import type { FrameRate } from '../time/frame-rate';
import { activeCanvas, type Audience, type Clip, type Words } from './clip';
import { activeClip, type Edit, sizeOf } from './job';
import type { Repairs } from './repairs';
import { retimed } from './retime';
import type { Shot } from './shot';

/** What was done to a cut, as it is called where it can be undone. */
export const CUT_ACTS = {
  'in-point': 'set the in point',
  'out-point': 'set the out point',
  trim: 'trim the cut',
  split: 'split a range',
  remove: 'remove a range',
  move: 'move a range',
  slip: 'slip a range',
  roll: 'move a cut between ranges',
  add: 'add a range',
  fit: 'fit to a length',
  list: 'take a cut list',
} as const;
/** What was done to shots. */
export const SHOT_ACTS = {
  found: 'take the found shots',
  add: 'add a shot',
  merge: 'merge two shots',
  move: 'move a shot',
  list: 'take a shot list',
} as const;
/** What was done to the clips. */
export const CLIP_ACTS = {
  add: 'add a clip',
  remove: 'remove a clip',
  rename: 'rename a clip',
  parts: 'split into parts',
} as const;

/** Every change that a person can make to a job, by name. */
export type Command =
  | { type: 'set-cut'; act: keyof typeof CUT_ACTS; cut: Cut }
  | { type: 'set-shots'; act: keyof typeof SHOT_ACTS; shots: Shot[]; framings: Framing[] }
  | { type: 'set-repairs'; master: string; repairs: Repairs; rates: { before: FrameRate; after: FrameRate } }
  | { type: 'set-clips'; act: keyof typeof CLIP_ACTS; clips: Clip[]; clip: string }
  | { type: 'choose-placement'; placement: string }
  | { type: 'set-rate'; rate: FrameRate }
  | { type: 'set-framing'; framing: Framing }
  | { type: 'reset-framing'; shot: string }
  | { type: 'set-pane-mode'; mode: 'fill' | 'fit' }
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
    case 'set-repairs':
      return 'repair the master';
    case 'choose-placement':
      return 'choose the canvas';
    case 'set-rate':
      return 'choose the rate';
    case 'set-framing':
      return 'move the window';
    case 'reset-framing':
      return 'reset the framing';
    case 'set-pane-mode':
      return 'fill or fit';
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
      return { ...edit, shots: command.shots, framings: command.framings };
    case 'set-repairs': {
      const { before, after } = command.rates;
      const repaired = { ...edit, repairs: { ...edit.repairs, [command.master]: command.repairs } };
      return retimed(repaired, command.master, before, after);
    }
    case 'set-clips':
      return { ...edit, clips: command.clips, clip: command.clip };
    case 'choose-placement':
      return withClip(edit, choosePlacement(clip, command.placement));
    case 'set-rate':
      return withClip(edit, withCanvas(clip, { ...activeCanvas(clip), rate: command.rate }));
    case 'set-framing':
      return { ...edit, framings: [...withoutShot(edit, command.framing.shot), command.framing] };
    case 'reset-framing':
      return { ...edit, framings: withoutShot(edit, command.shot) };
    case 'set-pane-mode':
      return withClip(edit, withCanvas(clip, paneMode(activeCanvas(clip), command.mode)));
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

const withoutShot = (edit: Edit, shot: string): Framing[] => edit.framings.filter((one) => one.shot !== shot);

function withClip(edit: Edit, clip: Clip): Edit {
  return { ...edit, clips: edit.clips.map((one) => (one.id === clip.id ? clip : one)) };
}

function withCanvas(clip: Clip, canvas: Canvas): Clip {
  return { ...clip, canvases: clip.canvases.map((one) => (one.id === canvas.id ? canvas : one)) };
}

/** A new size keeps layout and rate; overrides were given for the old placement's limits and end with it. */
function choosePlacement(clip: Clip, key: string): Clip {
  placementOf(key);
  const canvas = activeCanvas(clip);
  const sized = { ...canvasOf(key, sizeOf(key), canvas.rate, canvas.id), layout: canvas.layout };
  const overrides = key === canvas.placement ? clip.overrides : [];
  return { ...withCanvas(clip, sized), overrides };
}

function paneMode(canvas: Canvas, mode: 'fill' | 'fit'): Canvas {
  return {
    ...canvas,
    layout: { ...canvas.layout, panes: canvas.layout.panes.map((pane) => ({ ...pane, mode })) },
  };
}
