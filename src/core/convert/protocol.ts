import { z } from 'zod';
import { byteCount, seconds } from '../figures/bounded';

/** Where a server that has ffmpeg takes files to convert, from its root. */
const CONVERT_PATH = '/convert';
/** Address that tells whether the server can convert. */
export const CONVERT_ABILITY = `${CONVERT_PATH}/ability`;
/** Where it takes uploads (tus). */
export const CONVERT_UPLOADS = `${CONVERT_PATH}/uploads`;
/** Where the conversion of an upload stands; DELETE stops it and forgets both files. */
export const conversionPath = (id: string): string => `${CONVERT_PATH}/jobs/${id}`;
/** The converted file. */
export const convertedPath = (id: string): string => `${conversionPath(id)}/file`;

export const abilitySchema = z.object({ ffmpeg: z.boolean() });

/** Why a conversion failed; its words are the reader's own. */
export const CONVERSION_FAULTS = [
  'unreadable',
  'cut-off',
  'no-picture',
  'too-slow',
  'no-room',
  'broken',
  'busy',
] as const;
export type ConversionFault = (typeof CONVERSION_FAULTS)[number];

/** Where a conversion stands. */
export const conversionSchema = z.discriminatedUnion('state', [
  z.object({ state: z.literal('queued') }),
  z.object({ state: z.literal('running'), doneSeconds: seconds(), totalSeconds: seconds().nullable() }),
  z.object({ state: z.literal('done'), bytes: byteCount(1) }),
  z.object({ state: z.literal('failed'), fault: z.enum(CONVERSION_FAULTS) }),
]);
export type Conversion = z.infer<typeof conversionSchema>;
