import { type Cut, withIn, withOut } from '../cut/cut';
import type { Framing } from '../framing/framing';
import { type Canvas, canvasOf } from '../layout/canvas';
import { placementOf } from '../outlets/outlets';
import { activeCanvas, type Audience, type Edit, sizeOf, type Words } from './job';
import type { Master } from './master';

/** Every change that a person can make to a job, by name. */
export type Command =
  | { type: 'choose-placement'; placement: string }
  | { type: 'set-in'; frame: number }
  | { type: 'set-out'; lastFrame: number }
  | { type: 'set-cut'; cut: Cut }
  | { type: 'set-framing'; framing: Framing }
  | { type: 'reset-framing'; shot: string }
  | { type: 'set-pane-mode'; mode: 'fill' | 'fit' }
  | { type: 'set-video-bits'; bits: number | null }
  | { type: 'set-words'; words: Words }
  | { type: 'set-audience'; audience: Audience }
  | { type: 'set-override'; rule: string; on: boolean };

/** What a command is called where it can be undone. */
export const COMMAND_NAMES: Record<Command['type'], string> = {
  'choose-placement': 'choose the canvas',
  'set-in': 'set the in point',
  'set-out': 'set the out point',
  'set-cut': 'trim the cut',
  'set-framing': 'move the window',
  'reset-framing': 'reset the framing',
  'set-pane-mode': 'fill or fit',
  'set-video-bits': 'set the bit rate',
  'set-words': 'change the words',
  'set-audience': 'choose who may see it',
  'set-override': 'override a stop',
};

/** The edit after a command. Pure; places are kept in the picture's own coordinates, so no command loses any. */
export function applyCommand(edit: Edit, command: Command, master: Master): Edit {
  switch (command.type) {
    case 'choose-placement':
      return choosePlacement(edit, command.placement, master);
    case 'set-in':
      return { ...edit, cut: withIn(edit.cut, command.frame) };
    case 'set-out':
      return { ...edit, cut: withOut(edit.cut, command.lastFrame, master.frames) };
    case 'set-cut':
      return { ...edit, cut: command.cut };
    case 'set-framing':
      return { ...edit, framings: [...withoutShot(edit, command.framing.shot), command.framing] };
    case 'reset-framing':
      return { ...edit, framings: withoutShot(edit, command.shot) };
    case 'set-pane-mode':
      return withCanvas(edit, paneMode(activeCanvas(edit), command.mode));
    case 'set-video-bits':
      return { ...edit, videoBits: command.bits };
    case 'set-words':
      return { ...edit, words: command.words };
    case 'set-audience':
      return { ...edit, audience: command.audience };
    case 'set-override': {
      const others = edit.overrides.filter((rule) => rule !== command.rule);
      return { ...edit, overrides: command.on ? [...others, command.rule] : others };
    }
  }
}

const withoutShot = (edit: Edit, shot: string): Framing[] => edit.framings.filter((one) => one.shot !== shot);

function withCanvas(edit: Edit, canvas: Canvas): Edit {
  return { ...edit, canvases: edit.canvases.map((one) => (one.id === canvas.id ? canvas : one)) };
}

/** A new size keeps the layout; overrides were given for the old placement's limits and end with it. */
function choosePlacement(edit: Edit, key: string, master: Master): Edit {
  placementOf(key);
  const canvas = activeCanvas(edit);
  const sized = { ...canvasOf(key, sizeOf(key), master.rate, canvas.id), layout: canvas.layout };
  const overrides = key === canvas.placement ? edit.overrides : [];
  return { ...withCanvas(edit, sized), overrides };
}

function paneMode(canvas: Canvas, mode: 'fill' | 'fit'): Canvas {
  return {
    ...canvas,
    layout: { ...canvas.layout, panes: canvas.layout.panes.map((pane) => ({ ...pane, mode })) },
  };
}
