import { decodeRuns } from '@core/render/decode-runs';
import { ExportOutput } from './export-output';
import type { OutputRequest } from './maker';
import { MAKERS } from './makers';
import { ReaderPool } from '../read/reader-pool';
import { throwIfStopped, type TaskContext } from '../worker/serve-task';

/** Files to make in one go: several canvases of one clip. */
export interface ExportRequest {
  outputs: OutputRequest[];
}

/** Progress is told every so many frames. */
const REPORT_EVERY = 6;

/**
 * Makes the clips: decodes each master frame once for all of them, draws it by each plan, encodes H.264 High and
 * AAC, and streams MP4s with their index in front into the private file system. On any failure nothing is left.
 * @returns each file's size in bytes.
 */
export async function exportClips(
  { outputs }: ExportRequest,
  { report, signal }: TaskContext,
): Promise<{ bytes: number[] }> {
  const plans = outputs.map((output) => output.plan);
  const sources = plans[0]?.sources ?? [];
  const readers = new ReaderPool(sources);
  const open: ExportOutput[] = [];
  const total = plans.reduce((sum, plan) => sum + plan.frames, 0);
  try {
    for (const output of outputs) {
      open.push(await ExportOutput.open(MAKERS[output.container], output, readers));
    }
    let decoded = 0;
    for (const run of decodeRuns(plans)) {
      const reader = await readers.of(run.source);
      for await (const { frame, sample } of reader.frames(run.in, run.out)) {
        throwIfStopped(signal);
        for (const output of open) await output.offer(run, frame, sample);
        if (decoded++ % REPORT_EVERY !== 0) continue;
        report({ stage: 'export', done: open.reduce((sum, output) => sum + output.next, 0), total });
      }
    }
    for (const output of open) await output.finish((source) => sources[source]?.fileName ?? '');
    throwIfStopped(signal);
    for (const output of open) await output.keep();
    return { bytes: open.map((output) => output.bytes) };
  } catch (error) {
    for (const output of open) await output.discard();
    throw error;
  } finally {
    readers.close();
  }
}
