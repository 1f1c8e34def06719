import { decodeRuns } from '@core/render/decode-runs';
import type { VideoEncodeSettings } from '@core/render/encode-settings';
import type { RenderPlan } from '@core/render/plan';
import { waitWhilePlaying } from '../play/playing-lock';
import { ReaderPool } from '../read/reader-pool';
import { throwIfStopped, type TaskContext } from '../worker/serve-task';
import { VideoTrackEncoder } from './video-track-encoder';

/** Pieces of a clip to encode and throw away. */
export interface SizeTrialRequest {
  plans: RenderPlan[];
  picture: VideoEncodeSettings;
}

/** Encodes pieces as an export does, keeps nothing, and tells the video bytes of each. */
export async function trySizes(
  { plans, picture }: SizeTrialRequest,
  { report, signal }: TaskContext,
): Promise<{ bytes: number[] }> {
  const readers = new ReaderPool(plans[0]?.sources ?? []);
  const bytes: number[] = [];
  try {
    for (const [i, plan] of plans.entries()) {
      report({ stage: 'trial', done: i, total: plans.length });
      bytes.push(await measureBytes(plan, picture, readers, signal));
    }
    return { bytes };
  } finally {
    readers.close();
  }
}

async function measureBytes(
  plan: RenderPlan,
  picture: VideoEncodeSettings,
  readers: ReaderPool,
  signal: AbortSignal,
): Promise<number> {
  let bytes = 0;
  const scales = {
    has: () => false,
    bytesOf: () => 0,
    begin: () => undefined,
    add: (_group: number, { data }: { data: Uint8Array }) => {
      bytes += data.byteLength;
    },
    end: (_group: number, filling: number) => {
      bytes += filling;
    },
  };
  const maker = await VideoTrackEncoder.open(plan, picture, scales);
  try {
    maker.begin({ from: 0, to: plan.frames });
    for (const run of decodeRuns([plan])) {
      const reader = await readers.of(run.source);
      for await (const { frame, sample } of reader.frames(run.in, run.out)) {
        await waitWhilePlaying(signal);
        throwIfStopped(signal);
        await maker.offer(run, frame, sample);
      }
    }
    await maker.settle((source) => plan.sources[source]?.fileName ?? '');
    return bytes;
  } finally {
    await maker.stop();
  }
}
