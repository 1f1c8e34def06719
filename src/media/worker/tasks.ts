import { z } from 'zod';
import { byteCount, frameIndex, measure } from '@core/figures/bounded';
import { lookedSpanSchema, type Track, trackSchema } from '@core/follow/evidence';
import type { Followed } from '@core/follow/solve';
import { followingSchema } from '@core/framing/following';
import { framingSchema } from '@core/framing/framing';
import { masterSchema } from '@core/master/master';
import type { Returned } from '@core/proof/returned';
import { proofSchema, type Proof } from '@core/proof/proof-record';
import { type Pass, passSchema } from '@core/pass/pass';
import { trialResultSchema } from '@core/trial/rate-trial';
import { type Speech, speechSchema } from '@core/speech/speech';
import { type CaptionFile, captionFileSchema } from '@core/words/files/caption-file';
import { type LaidScript, laidScriptSchema, type ScriptRequest } from '@core/words/script';
import type { PackRequest } from '../archive/pack-task';
import type { Unpacked, UnpackRequest } from '../archive/unpack-task';
import type { BringInRequest, BroughtIn } from '../read/bring-in-task';
import type { BoxRequest } from '../follow/box-task';
import type { EvidenceProgress, EvidenceRequest } from '../follow/evidence-task';
import type { PathRequest } from '../follow/path-task';
import type { CoverRequest } from '../export/cover-task';
import type { ExportRequest } from '../export/export-task';
import type { GreyRequest } from '../pass/grey-looks';
import type { PassRequest } from '../pass/pass-task';
import type { SizeTrialRequest } from '../export/size-trial-task';
import type { ReturnedRequest, ReturnedResult } from '../returned/returned-task';
import type { ReadBackRequest } from '../export/read-back-task';
import type { RateTrialRequest, RateTried } from '../trial/rate-trial-task';
import type { SpeechRequest } from '../speech/speech-task';
import { runTask } from './run-task';
import type { OwnFont } from '../words/check-font';
import type { ContrastRequest, LookedWords } from '../words/contrast-task';
import type { StillsRequest } from '../play/stills-task';
import { progressSchema, type Progress } from './worker-protocol';
import { workerUrls } from './worker-urls';

/** How a caller follows and stops a task. */
export interface Following {
  onProgress?: (progress: Progress) => void;
  signal?: AbortSignal;
}

/** Copies a file in and gives its facts. @throws TroubleError */
export function bringInFile(request: BringInRequest, following: Following): Promise<BroughtIn> {
  const result = z.object({ master: masterSchema, fresh: z.boolean() });
  return runTask('bring-in', request, { progress: progressSchema, result, ...following });
}

/** Makes a clip on one canvas or several in one go. @throws TroubleError */
export function makeExport(request: ExportRequest, following: Following): Promise<{ bytes: number[] }> {
  const result = z.object({ bytes: z.array(byteCount()) });
  return runTask('export', request, { progress: progressSchema, result, ...following });
}

/** Encodes pieces of a clip, keeps nothing, and tells the video bytes of each. @throws TroubleError */
export function tryExportSizes(
  request: SizeTrialRequest,
  following: Following,
): Promise<{ bytes: number[] }> {
  const result = z.object({ bytes: z.array(byteCount()) });
  return runTask('size-trial', request, { progress: progressSchema, result, ...following });
}

const picturesSchema = z.object({ planned: z.instanceof(Blob), viewed: z.instanceof(Blob) });
const rateTriedSchema = z.object({ result: trialResultSchema, pictures: z.array(picturesSchema) });

/** Makes pieces of a clip at several rates and looks at what a viewer would get. @throws TroubleError */
export function tryExportRates(request: RateTrialRequest, following: Following): Promise<RateTried> {
  return runTask('rate-trial', request, { progress: progressSchema, result: rateTriedSchema, ...following });
}

/** Reads a finished clip back. @throws TroubleError */
export function proveExport(request: ReadBackRequest, following: Following): Promise<Proof> {
  return runTask('read-back', request, { progress: progressSchema, result: proofSchema, ...following });
}

const returnedSchema = z.object({
  returned: z.custom<Returned>((value) => typeof value === 'object' && value !== null),
  pictures: z.object({ sent: z.instanceof(Blob), got: z.instanceof(Blob) }).nullable(),
});

/** Holds a file that came back against the export that left. @throws TroubleError */
export function lookAtReturnedFile(request: ReturnedRequest, following: Following): Promise<ReturnedResult> {
  return runTask('returned', request, { progress: progressSchema, result: returnedSchema, ...following });
}

/** Looks at a whole master once. @throws TroubleError */
export function passOverMaster(request: Omit<PassRequest, 'laneUrl'>, following: Following): Promise<Pass> {
  const whole: PassRequest = { ...request, laneUrl: workerUrls['pass-lane'] };
  return runTask('pass', whole, { progress: progressSchema, result: passSchema, ...following });
}

/** Puts texts and stored files into one stored file. @returns its bytes. @throws TroubleError */
export function packStored(request: PackRequest, following: Following): Promise<number> {
  return runTask('pack', request, { progress: progressSchema, result: measure(), ...following });
}

/** Takes the masters of a packed job in, and gives the job. @throws TroubleError */
export function unpackJobFile(request: UnpackRequest, following: Following): Promise<Unpacked> {
  const result = z.object({ text: z.string(), fresh: z.array(z.string()) });
  return runTask('unpack', request, { progress: progressSchema, result, ...following });
}

/** Finds where somebody speaks in a master. @throws TroubleError */
export function findSpeechIn(request: SpeechRequest, following: Following): Promise<Speech['spans']> {
  const result = speechSchema.shape.spans;
  return runTask('speech', request, { progress: progressSchema, result, ...following });
}

/** Reads a file of captions, whatever is wrong with it. @throws TroubleError */
export function readCaptionsOf(bytes: Uint8Array): Promise<CaptionFile> {
  return runTask('captions', { bytes }, { progress: progressSchema, result: captionFileSchema });
}

/** Lays a script on speech. @throws TroubleError */
export function layScript(request: ScriptRequest, following: Following): Promise<LaidScript> {
  // It has nothing to clean up, and does not hear while it reckons.
  return runTask('script', request, {
    ...{ progress: progressSchema, result: laidScriptSchema, graceMs: 0 },
    ...following,
  });
}

/** Draws a still of a clip. @throws TroubleError */
export function makeCoverOf(request: CoverRequest, following: Following = {}): Promise<Blob> {
  return runTask('cover', request, { progress: progressSchema, result: z.instanceof(Blob), ...following });
}

/** Checks a file and keeps it as a font of the person's own. @throws TroubleError */
export function keepFontOf(file: File): Promise<OwnFont> {
  const result = z.object({ family: z.string(), name: z.string() });
  return runTask('font', { file }, { progress: progressSchema, result });
}

const contrastSchema = z.object({
  worst: z.object({ frame: frameIndex(), ratio: measure(), size: measure() }).nullable(),
  over: measure().nullable(),
});

/** How little words stand out from the pixels behind them, and whether they have room. @throws TroubleError */
export function measureContrastOf(request: ContrastRequest, following: Following): Promise<LookedWords> {
  return runTask('contrast', request, { progress: progressSchema, result: contrastSchema, ...following });
}

const greyLooksSchema = z.array(z.object({ detail: measure(), light: measure() }));

/** Looks at the grey copies of some frames of a master. @throws TroubleError */
export function lookAtGreysOf(request: GreyRequest): Promise<z.infer<typeof greyLooksSchema>> {
  return runTask('grey-looks', request, { progress: progressSchema, result: greyLooksSchema });
}

const spanProgressSchema = z.object({ done: measure(), span: lookedSpanSchema.nullable() });

/** Looks for subjects in ranges of a master; each is told as soon as it was looked at. @throws TroubleError */
export function gatherEvidenceOf(
  request: EvidenceRequest,
  onProgress: (progress: EvidenceProgress) => void,
  signal: AbortSignal,
): Promise<number> {
  return runTask('follow', request, { progress: spanProgressSchema, result: measure(), onProgress, signal });
}

/** Follows a box that was drawn through its shot. @throws TroubleError */
export function followDrawnBox(request: BoxRequest, following: Following): Promise<Track> {
  return runTask('follow-box', request, { progress: progressSchema, result: trackSchema, ...following });
}

const followedSchema = z.object({
  keyframes: framingSchema.shape.keyframes,
  places: followingSchema.shape.places,
  doubts: followingSchema.shape.doubts,
  unserved: z.array(z.string()),
});

/** Finds the paths that keep the subjects of shots in view; null for one that has none. @throws TroubleError */
export function findPathsOf(request: PathRequest, following: Following): Promise<(Followed | null)[]> {
  const result = z.array(followedSchema.nullable());
  return runTask('follow-path', request, { progress: progressSchema, result, ...following });
}

const stillSchema = z.object({ frame: frameIndex(), still: z.instanceof(Blob) });
export type Still = z.infer<typeof stillSchema>;

/** Makes small pictures of frames, each told as soon as it is there. @throws TroubleError */
export function makeStillsOf(
  request: StillsRequest,
  onStill: (still: Still) => void,
  signal: AbortSignal,
): Promise<number> {
  return runTask('stills', request, {
    progress: stillSchema,
    result: measure(),
    onProgress: onStill,
    signal,
  });
}
