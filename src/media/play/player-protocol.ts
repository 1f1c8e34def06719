import type { Source } from '@core/master/source';
import type { Size } from '@core/picture/size';
import type { PlanOverlay } from '@core/render/overlays';
import type { PlanSegment, RenderPlan } from '@core/render/plan';
import type { Trouble } from '@core/trouble/trouble';

/** The pictures that the player draws: the master, and canvases by their ids. */
export type View = 'master' | `canvas:${string}`;

/** The view of a canvas. */
export const canvasView = (id: string): View => `canvas:${id}`;

/** How finely a playing picture is decoded: the master, its proxy, or every other frame of the proxy. */
export type Quality = 'full' | 'half' | 'quarter';

/** How fast it plays. */
export type Speed = 1 | 0.5;

/** Frames of one source in a row, half-open, to be played. */
export interface SoundPiece {
  source: number;
  from: number;
  to: number;
}

/** A place among the pieces of one play. */
export interface HeldPiece {
  playId: number;
  index: number;
}

/** Order of the page to the player's worker. */
export type PlayerOrder =
  /** Also again, when a repair changes what is drawn; playing ends. */
  | { type: 'open'; sources: Source[] }
  /** A proxy was made of one of the sources. */
  | { type: 'proxies' }
  /** By canvas, for each source the plan of its whole length, so that its output frame n is frame n; a card follows. */
  | { type: 'plans'; plans: Record<string, RenderPlan[]> }
  /** By canvas and source, segments that are drawn in the place of those of the plans, until there are others. */
  | { type: 'redraw'; segments: Record<string, PlanSegment[][]> }
  /** By canvas and source, words that are drawn in the place of those of the plans, until there are others. */
  | { type: 'words'; overlays: Record<string, (readonly PlanOverlay[])[]> }
  /** Sizes in device pixels of the views on screen; a view that is not on screen is not drawn. */
  | { type: 'views'; sizes: Partial<Record<View, Size>> }
  | { type: 'show'; source: number; frame: number }
  /**
   * Plays pieces one after another, and the plans' end card after them; the first frame is due at `startsAt`, in
   * milliseconds since the epoch.
   */
  | {
      type: 'play';
      /** ID of a playback: its events carry it, so that those of an earlier one are told apart. */
      playId: number;
      pieces: SoundPiece[];
      startsAt: number;
      quality: Quality | 'auto';
      speed: Speed;
      card: boolean;
    }
  | { type: 'pause' };

/** Event of the player's worker. */
export type PlayerEvent =
  | {
      type: 'frame';
      source: number;
      frame: number;
      /** The play and the piece of it that it belongs to; null where nothing played. */
      piece: HeldPiece | null;
      pictures: Partial<Record<View, ImageBitmap>>;
    }
  /** Sound to be heard `start` seconds after the start of playing; one array a channel. */
  | {
      type: 'sound';
      playId: number;
      start: number;
      sampleRate: number;
      channels: Float32Array<ArrayBuffer>[];
    }
  /** Playing fell behind, or was asked to be coarser. */
  | { type: 'quality'; quality: Quality }
  /** Without a play where sources were opened anew. */
  | { type: 'ended'; playId: number | null }
  | { type: 'failed'; trouble: Trouble };
