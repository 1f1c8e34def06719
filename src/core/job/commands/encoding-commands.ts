import { z } from 'zod';
import { type Encoding, encodingSchema, PLAIN_ENCODING, videoBitsSchema } from '../../rate/encoding';
import { activeCanvas } from '../clip';
import type { Edit } from '../job';
import { command, withCanvas, withClip } from './command';

/** How the file of the canvas being worked on is made, changed. */
const withEncoding = (edit: Edit, change: (encoding: Encoding) => Encoding): Edit =>
  withClip(edit, (clip) =>
    withCanvas(clip, activeCanvas(clip).id, (canvas) => ({
      ...canvas,
      encoding: change(canvas.encoding ?? PLAIN_ENCODING),
    })),
  );

/** How files are made of the canvases of a clip. */
export const ENCODING_COMMANDS = {
  'set-encoding': command({
    schema: z.object({ canvases: z.array(z.string()), encoding: encodingSchema }),
    label: 'change how the file is made',
    apply: (edit, { canvases, encoding }) =>
      withClip(edit, (clip) =>
        canvases.reduce((now, id) => withCanvas(now, id, (canvas) => ({ ...canvas, encoding })), clip),
      ),
  }),
  'set-video-bits': command({
    /** Null for the rate that is worked out. */
    schema: z.object({ bits: videoBitsSchema.nullable() }),
    label: 'set the bit rate',
    apply: (edit, { bits }) =>
      withEncoding(edit, (encoding) => ({
        ...encoding,
        rate: bits === null ? { kind: 'worked-out' } : { kind: 'variable', bits, most: null },
      })),
  }),
  'set-loudness': command({
    schema: z.object({ loudness: encodingSchema.shape.sound.shape.loudness }),
    label: 'set the loudness',
    apply: (edit, { loudness }) =>
      withEncoding(edit, (encoding) => ({ ...encoding, sound: { ...encoding.sound, loudness } })),
  }),
};
