import { NullTarget, Mp4OutputFormat, Output } from 'mediabunny';
import { decodeRuns } from '@core/render/decode-runs';
import type { RenderPlan } from '@core/render/plan';
import { rateValue } from '@core/time/frame-rate';
import { ReaderPool } from '../read/reader-pool';
import { throwIfStopped, type TaskContext } from '../worker/serve-task';
import { ExportOutput } from './export-output';
import type { Maker } from './maker';
import { pictureSource } from './makers/mp4';

/** Pieces of a clip to encode and throw away. */
export interface SizeTrialRequest {
  plans: RenderPlan[];
  videoBits: number;
}

/** Encodes pieces as an export does, keeps nothing, and tells the video bytes of each. */
export async function trySizes(
  { plans, videoBits }: SizeTrialRequest,
  { report, signal }: TaskContext,
): Promise<{ bytes: number[] }> {
  const readers = new ReaderPool(plans[0]?.sources ?? []);
  const bytes: number[] = [];
  try {
    for (const [i, plan] of plans.entries()) {
      report({ stage: 'trial', done: i, total: plans.length });
      bytes.push(await bytesOf(plan, videoBits, readers, signal));
    }
    return { bytes };
  } finally {
    readers.close();
  }
}

async function bytesOf(
  plan: RenderPlan,
  videoBits: number,
  readers: ReaderPool,
  signal: AbortSignal,
): Promise<number> {
  let bytes = 0;
  const request = { name: 'trial', container: 'mp4', plan, videoBits } as const;
  const made = await ExportOutput.open(
    scales((packet) => (bytes += packet)),
    request,
    readers,
  );
  try {
    for (const run of decodeRuns([plan])) {
      const reader = await readers.of(run.source);
      for await (const { frame, sample } of reader.frames(run.in, run.out)) {
        throwIfStopped(signal);
        await made.offer(run, frame, sample);
      }
    }
    await made.finish((source) => plan.sources[source]?.fileName ?? '');
    return bytes;
  } catch (error) {
    await made.discard();
    throw error;
  }
}

/** A maker whose file goes nowhere. @param weigh is told the bytes of each picture. */
const scales = (weigh: (bytes: number) => void): Maker => ({
  async open({ plan, videoBits }) {
    const output = new Output({
      format: new Mp4OutputFormat({ fastStart: false }),
      target: new NullTarget(),
    });
    const picture = await pictureSource(plan, videoBits, ({ data }) => weigh(data.byteLength));
    // The encoder shares its bits out by this rate.
    output.addVideoTrack(picture, { frameRate: rateValue(plan.rate) });
    const file = {
      output,
      bytes: 0,
      finalize: () => output.finalize(),
      keep: () => Promise.resolve(),
      discard: () => output.cancel(),
    };
    return { file, picture, sound: null };
  },
});
