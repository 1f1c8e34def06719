import type { Source } from '@core/master/source';
import type { Grey } from '@core/pass/grey';
import type { Span } from '@core/pass/spans';
import type { Trouble } from '@core/trouble/trouble';
import type { ProxyPacket } from './proxy-encoder';

/** Measurements of one frame of a master. */
export interface FrameMeasurements {
  /** Its number at the source's rate. */
  frame: number;
  grey: Grey;
  /** Bright samples of every row and column, of frames that are looked at closely. */
  bright: { rows: Int32Array; columns: Int32Array } | null;
  /** True when the frame combs; null where that was not looked for. */
  combs: boolean | null;
  /** After a frame that combs: over 1 where the top field came first; else null. */
  order: number | null;
  /** The picture made small, of frames that a filmstrip may want. Whoever gets it closes it. */
  tile: VideoFrame | null;
}

/** Order of the pass to a lane: first which file, then span after span of it. */
export type LaneOrder = { type: 'open'; source: Source } | { type: 'look'; span: Span };

/** Event of a lane. */
export type LaneEvent =
  | { type: 'seen'; seen: FrameMeasurements[]; packets: ProxyPacket[]; config: VideoDecoderConfig | null }
  | { type: 'through' }
  | { type: 'failed'; trouble: Trouble };
