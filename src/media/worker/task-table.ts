import { z } from 'zod';
import { byteCount, frameIndex, measure } from '@core/figures/bounded';
import { lookedSpanSchema, trackSchema } from '@core/follow/evidence';
import { followingSchema } from '@core/framing/following';
import { framingSchema } from '@core/framing/framing';
import { masterSchema } from '@core/master/master';
import { passSchema } from '@core/pass/pass';
import { proofSchema } from '@core/proof/proof-record';
import type { ReturnedFile } from '@core/proof/returned';
import { speechSchema } from '@core/speech/speech';
import { trialResultSchema } from '@core/trial/rate-trial';
import { captionFileSchema } from '@core/words/files/caption-file';
import { laidScriptSchema, type ScriptRequest } from '@core/words/script';
import type { PackRequest } from '../archive/pack-task';
import type { UnpackRequest } from '../archive/unpack-task';
import type { CoverRequest } from '../export/cover-task';
import type { ExportRequest } from '../export/export-task';
import type { ReadBackRequest } from '../export/read-back-task';
import type { SizeTrialRequest } from '../export/size-trial-task';
import type { BoxRequest } from '../follow/box-task';
import type { EvidenceRequest } from '../follow/evidence-task';
import type { PathRequest } from '../follow/path-task';
import type { GreyRequest } from '../pass/grey-looks';
import type { PassRequest } from '../pass/pass-task';
import type { StillsRequest } from '../play/stills-task';
import type { BringInRequest } from '../read/bring-in-task';
import type { ReturnedRequest } from '../returned/returned-task';
import type { SpeechRequest } from '../speech/speech-task';
import type { RateTrialRequest } from '../trial/rate-trial-task';
import type { ContrastRequest } from '../words/contrast-task';
import { declareTask, type TaskDefinition } from './task-definition';

const bytesSchema = z.object({ bytes: z.array(byteCount()) });
const isObject = (value: unknown): boolean => typeof value === 'object' && value !== null;

/**
 * Every task that is done in a worker of its own; `implementations.ts` says by what. Its schemas are the page's: a worker
 * that built them all would begin later.
 */
export const TASKS = {
  'bring-in': declareTask<BringInRequest>()({
    result: z.object({ master: masterSchema, fresh: z.boolean() }),
  }),
  export: declareTask<ExportRequest>()({ result: bytesSchema }),
  'size-trial': declareTask<SizeTrialRequest>()({ result: bytesSchema }),
  'rate-trial': declareTask<RateTrialRequest>()({
    result: z.object({
      result: trialResultSchema,
      pictures: z.array(z.object({ planned: z.instanceof(Blob), viewed: z.instanceof(Blob) })),
    }),
  }),
  'read-back': declareTask<ReadBackRequest>()({ result: proofSchema }),
  returned: declareTask<ReturnedRequest>()({
    result: z.object({
      returned: z.custom<ReturnedFile>(isObject),
      pictures: z.object({ sent: z.instanceof(Blob), got: z.instanceof(Blob) }).nullable(),
    }),
  }),
  pass: declareTask<PassRequest>()({ result: passSchema }),
  pack: declareTask<PackRequest>()({
    result: measure(),
  }),
  unpack: declareTask<UnpackRequest>()({
    result: z.object({ text: z.string(), fresh: z.array(z.string()) }),
  }),
  speech: declareTask<SpeechRequest>()({ result: speechSchema.shape.spans }),
  captions: declareTask<{ bytes: Uint8Array }>()({ result: captionFileSchema }),
  script: declareTask<ScriptRequest>()({
    result: laidScriptSchema,
    // It has nothing to clean up, and does not hear while it reckons.
    graceMs: 0,
  }),
  cover: declareTask<CoverRequest>()({ result: z.instanceof(Blob) }),
  font: declareTask<{ file: File }>()({
    result: z.object({ family: z.string(), name: z.string() }),
  }),
  contrast: declareTask<ContrastRequest>()({
    result: z.object({
      worst: z.object({ frame: frameIndex(), ratio: measure(), size: measure() }).nullable(),
      over: measure().nullable(),
    }),
  }),
  'grey-looks': declareTask<GreyRequest>()({
    result: z.array(z.object({ detail: measure(), light: measure() })),
  }),
  follow: declareTask<EvidenceRequest>()({
    progress: z.object({ done: measure(), span: lookedSpanSchema.nullable() }),
    result: measure(),
  }),
  'follow-box': declareTask<BoxRequest>()({ result: trackSchema }),
  'follow-path': declareTask<PathRequest>()({
    result: z.array(
      z
        .object({
          keyframes: framingSchema.shape.keyframes,
          places: followingSchema.shape.places,
          doubts: followingSchema.shape.doubts,
          unserved: z.array(z.string()),
        })
        .nullable(),
    ),
  }),
  stills: declareTask<StillsRequest>()({
    progress: z.object({ frame: frameIndex(), still: z.instanceof(Blob) }),
    result: measure(),
  }),
};

export type TaskName = keyof typeof TASKS;
type Part<Name extends TaskName> =
  (typeof TASKS)[Name] extends TaskDefinition<infer Request, infer Progress, infer Result>
    ? { request: Request; progress: Progress; result: Result }
    : never;
/** Request, progress and result of a task. */
export type RequestOf<Name extends TaskName> = Part<Name>['request'];
export type ProgressOf<Name extends TaskName> = Part<Name>['progress'];
export type ResultOf<Name extends TaskName> = Part<Name>['result'];
