import { registerAacEncoder } from '@mediabunny/aac-encoder';
import {
  AudioSampleSource,
  Mp4OutputFormat,
  Output,
  Quality,
  StreamTarget,
  type StreamTargetChunk,
  VideoSample,
  VideoSampleSource,
} from 'mediabunny';
import { AUDIO_BITS } from '@core/rate/bit-rate';
import { highProfileCodec, lowestLevel } from '@core/rate/level';
import { frameOf, type PlannedFrame, planRuns, type RenderPlan } from '@core/render/plan';
import { type ExportSound, exportSound } from '@core/sound/sound';
import { rateValue, secondsOf } from '@core/time/frame-rate';
import { TroubleError } from '@core/trouble/trouble';
import { FrameRenderer } from './frame-renderer';
import { ReaderPool } from './reader-pool';
import { throwIfStopped, type TaskContext } from './serve-task';
import { cutSound } from './sound-cutter';
import { openWriter } from './storage';

/** One export: what of which masters, how, and the name it is stored under. */
export interface ExportRequest {
  name: string;
  plan: RenderPlan;
  /** Video bits a second. */
  videoBits: number;
}

/** A key frame at least this often, in seconds: phones step and outlets cut at key frames. */
const KEY_FRAME_SECONDS = 2;
/** Bytes that the container gathers before it writes: large writes are few. */
const CHUNK_BYTES = 1 << 20;
/** Sound is encoded this far ahead of the picture, in seconds. */
const SOUND_AHEAD = 1;
/** Progress is told every so many frames. */
const REPORT_EVERY = 6;

/**
 * Makes the clip: decodes each master frame once, draws it by the plan, encodes H.264 High and AAC, and streams an
 * MP4 with its index in front into the private file system. On any failure nothing is left behind.
 * @returns the file's size in bytes.
 */
export async function exportClip(
  request: ExportRequest,
  { report, signal }: TaskContext,
): Promise<{ bytes: number }> {
  const { plan } = request;
  const codec = await encoderFor(request);
  const readers = new ReaderPool(plan.sources);
  const writer = await openWriter('exports', request.name);
  let bytes = 0;
  const target = new StreamTarget(
    new WritableStream<StreamTargetChunk>({
      write({ data, position }) {
        writer.write(data, position);
        bytes = Math.max(bytes, position + data.byteLength);
      },
    }),
    { chunked: true, chunkSize: CHUNK_BYTES },
  );
  const output = new Output({ format: new Mp4OutputFormat({ fastStart: 'reserve' }), target });
  try {
    const picture = new VideoSampleSource({
      codec: 'avc',
      fullCodecString: codec,
      quality: new Quality({ bitrate: request.videoBits, bitrateMode: 'variable' }),
      latencyMode: 'quality',
      keyFrameInterval: KEY_FRAME_SECONDS,
    });
    output.addVideoTrack(picture, { frameRate: rateValue(plan.rate), maximumPacketCount: plan.frames });
    const facts = exportSound(plan);
    const sound = facts ? addSound(output, facts, plan) : null;
    await output.start();
    const soundTime = facts && sound ? cutSound((at) => readers.of(at), plan, facts, sound) : null;
    const renderer = await FrameRenderer.create(plan);
    let n = 0;
    let heard = 0;
    for (const run of planRuns(plan)) {
      const reader = await readers.of(run.source);
      for await (const { frame, sample } of reader.frames(run.in, run.out)) {
        // At another rate a master frame is drawn more than once, or not at all.
        for (; n < run.start + run.frames; n++) {
          const planned = frameOf(plan, n);
          if (planned.masterFrame !== frame) break;
          throwIfStopped(signal);
          await encodeFrame(picture, renderer, plan, n, planned, sample);
          if (n % REPORT_EVERY === 0) report({ stage: 'export', done: n, total: plan.frames });
        }
        while (soundTime && heard < secondsOf(n, plan.rate) + SOUND_AHEAD) {
          const { value, done } = await soundTime.next();
          heard = done ? Infinity : value;
        }
      }
      if (n !== run.start + run.frames) {
        const { fileName } = reader.source;
        throw new TroubleError('damaged', { file: fileName, detail: `frame ${n} of the clip is missing` });
      }
    }
    await output.finalize();
    throwIfStopped(signal);
    await writer.finish();
    return { bytes };
  } catch (error) {
    await output.cancel().catch(() => undefined);
    await writer.discard();
    throw error;
  } finally {
    readers.close();
  }
}

async function encodeFrame(
  target: VideoSampleSource,
  renderer: FrameRenderer,
  plan: RenderPlan,
  n: number,
  planned: PlannedFrame,
  sample: VideoSample,
): Promise<void> {
  const timestamp = secondsOf(n, plan.rate);
  const duration = secondsOf(n + 1, plan.rate) - timestamp;
  const decoded = sample.toVideoFrame();
  let drawn: VideoSample;
  try {
    const frame = await renderer.draw(
      decoded,
      planned,
      Math.round(timestamp * 1e6),
      Math.round(duration * 1e6),
    );
    drawn = new VideoSample(frame, { timestamp, duration });
  } finally {
    decoded.close();
  }
  try {
    await target.add(drawn);
  } finally {
    drawn.close();
  }
}

/** The codec string of the lowest level that fits. @throws TroubleError `encoder-missing` when it cannot be encoded. */
async function encoderFor({ plan, videoBits }: ExportRequest): Promise<string> {
  const { width, height } = plan;
  const codec = highProfileCodec(lowestLevel(plan, plan.rate, videoBits));
  const { supported } = await VideoEncoder.isConfigSupported({
    codec,
    width,
    height,
    bitrate: videoBits,
    framerate: rateValue(plan.rate),
  });
  if (!supported) throw new TroubleError('encoder-missing', { width, height });
  return codec;
}

/** Adds the sound track. */
function addSound(output: Output, { sampleRate }: ExportSound, plan: RenderPlan): AudioSampleSource {
  // Always this encoder, also where the browser has one: only its delay is known.
  registerAacEncoder();
  const source = new AudioSampleSource({ codec: 'aac', quality: new Quality({ bitrate: AUDIO_BITS }) });
  // An AAC packet holds 1024 samples; the encoder adds a few at the ends.
  const packets = Math.ceil((secondsOf(plan.frames, plan.rate) * sampleRate) / 1024) + 8;
  output.addAudioTrack(source, { maximumPacketCount: packets });
  return source;
}
