import type { Master } from '@core/job/master';
import type { Size } from '@core/picture/size';
import type { RenderPlan } from '@core/render/plan';
import type { Trouble } from '@core/trouble/trouble';

/** The pictures that the player draws. */
export const VIEWS = ['master', 'canvas'] as const;
export type View = (typeof VIEWS)[number];

/** What the page tells the player's worker. */
export type PlayerOrder =
  | { type: 'open'; master: Master }
  /** The plan of the whole master, so that its output frame n is master frame n. */
  | { type: 'plan'; plan: RenderPlan }
  /** Sizes in device pixels of the views on screen; a view that is not on screen is not drawn. */
  | { type: 'views'; sizes: Partial<Record<View, Size>> }
  | { type: 'show'; frame: number }
  /** Plays frames `from` to `to` − 1; the first is due at `startsAt`, in milliseconds since the epoch. */
  | { type: 'play'; from: number; to: number; startsAt: number }
  | { type: 'pause' };

/** What the worker tells the page. */
export type PlayerEvent =
  | { type: 'frame'; frame: number; pictures: Partial<Record<View, ImageBitmap>> }
  /** Sound to be heard `at` seconds after the start of playing; one array a channel. */
  | { type: 'sound'; at: number; sampleRate: number; channels: Float32Array<ArrayBuffer>[] }
  | { type: 'ended' }
  | { type: 'failed'; trouble: Trouble };
