import { z } from 'zod';
import { CAPTION_WAYS, type CaptionWay } from './captions';
import { type OwnPlace, ownPlaceSchema } from './text-block';

/** Overrides of a clip's words on one canvas. */
export const canvasTextSchema = z.object({
  places: z.array(ownPlaceSchema),
  captions: z.enum(CAPTION_WAYS),
});
export type CanvasText = z.infer<typeof canvasTextSchema>;

export const PLAIN_CANVAS_TEXT: CanvasText = { places: [], captions: 'burnt' };

/** Tells whether captions are drawn on the picture. */
export const isBurnt = (way: CaptionWay): boolean => way === 'burnt' || way === 'both';
/** Tells whether captions go out as files. */
export const isBeside = (way: CaptionWay): boolean => way === 'beside' || way === 'both';

/** A canvas's words with a place of its own for one block, or without. */
export function withPlace(text: CanvasText, block: string, place: OwnPlace | null): CanvasText {
  const others = text.places.filter((own) => own.block !== block);
  return { ...text, places: place ? [...others, place] : others };
}
