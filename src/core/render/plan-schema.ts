import { z } from 'zod';
import {
  boundedInt,
  boundedNumber,
  boundedCount,
  frameCount,
  frameIndex,
  MAX_SIDE_PIXELS,
  measure,
} from '../figures/bounded';
import { framingSchema } from '../framing/framing';
import { seenPlaceSchema } from '../framing/following';
import { canvasSizeSchema } from '../layout/canvas';
import { sourceSchema } from '../master/source';
import { pictureRectSchema, sizeSchema } from '../picture/size';
import { sharpeningSchema } from '../rate/encoding';
import { frameRateSchema } from '../time/frame-rate';
import { SEATS } from '../words/text-art';
import { textStyleSchema } from '../words/text-style';
import type { RenderPlan } from './plan';

const MAX_ITEMS = 100_000;
const colour = z.string().max(32);
/** Pixels of a canvas, of what may begin and end outside it. */
const pixels = () => boundedNumber(-MAX_SIDE_PIXELS, MAX_SIDE_PIXELS);
const canvasRect = z.object({
  ...{ x: pixels(), y: pixels() },
  width: boundedNumber(0, MAX_SIDE_PIXELS),
  height: boundedNumber(0, MAX_SIDE_PIXELS),
});

const paneSchema = z.object({
  pane: canvasRect,
  picture: canvasRect,
  track: z.string(),
  framing: framingSchema
    .pick({ keyframes: true, turn: true })
    .extend({ subject: z.array(seenPlaceSchema).max(MAX_ITEMS).optional() })
    .nullable(),
  radius: boundedNumber(0, MAX_SIDE_PIXELS),
  blur: boundedNumber(0, MAX_SIDE_PIXELS),
});

const segmentSchema = z.object({
  ...{ start: frameIndex(), frames: frameCount(), source: boundedCount(), range: boundedCount() },
  ...{ rangeStart: frameIndex(), rangeIn: frameIndex(), rangeOut: frameIndex() },
  shot: z.string(),
  live: pictureRectSchema,
  liveSize: sizeSchema,
  panes: z.array(paneSchema).max(16),
});

const overlaySchema = z.object({
  ...{ from: frameIndex(), to: frameIndex(), fade: measure() },
  art: z.object({
    text: z.string().max(20_000),
    style: textStyleSchema,
    box: canvasRect,
    seat: z.enum(SEATS),
    size: boundedNumber(0, MAX_SIDE_PIXELS).nullable(),
    mark: z.object({ from: boundedCount(), to: boundedCount(), colour }).nullable(),
    ground: colour.nullable(),
  }),
});

/** A plan that comes from another process or machine. */
export const renderPlanSchema: z.ZodType<RenderPlan> = canvasSizeSchema.extend({
  rate: frameRateSchema,
  ground: colour.nullable(),
  leastChannels: boundedInt(1, 2),
  sharpening: sharpeningSchema.nullable(),
  frames: frameCount(),
  cardFrames: frameIndex(),
  sources: z.array(sourceSchema).max(1000),
  segments: z.array(segmentSchema).max(MAX_ITEMS),
  overlays: z.array(overlaySchema).max(MAX_ITEMS),
});
