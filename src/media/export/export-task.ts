import { decodeRuns } from '@core/render/decode-runs';
import { planPart } from '@core/render/plan-part';
import { TroubleError } from '@core/trouble/trouble';
import { waitWhilePlaying } from '../play/playing-lock';
import { ReaderPool } from '../read/reader-pool';
import { type TaskContext, throwIfStopped } from '../worker/serve-task';
import { KEEP } from '../worker/worker-protocol';
import { ExportOutput, type OutputRequest } from './export-output';
import type { FrameSpan } from './video-track-encoder';

/** Files to make in one go: several canvases of one clip. */
export interface ExportRequest {
  outputs: OutputRequest[];
}

/** Progress is told every so many frames. */
const REPORT_EVERY = 6;

/**
 * Makes the clips: decodes each master frame once for all of them, draws it by each plan, encodes picture and sound, and
 * writes files with their index in front into the private file system. What an earlier page left of the same files is
 * taken up; when it is stopped for good, nothing is left.
 * @returns each file's size in bytes.
 */
export async function exportClips(
  { outputs }: ExportRequest,
  { report, signal }: TaskContext,
): Promise<{ bytes: number[] }> {
  const sources = outputs[0]?.plan.sources ?? [];
  const readers = new ReaderPool(sources);
  const toName = (source: number) => sources[source]?.fileName ?? '';
  const open: ExportOutput[] = [];
  const sum = (figure: 'done' | 'total') => open.reduce((frames, output) => frames + output[figure], 0);
  const tell = (stage: 'export' | 'held') => report({ stage, done: sum('done'), total: sum('total') });
  try {
    for (const output of outputs) {
      open.push(await ExportOutput.open(output, (source) => readers.of(source), signal));
    }
    await makePictures(open, open.map(wholeSpan), readers, signal, tell);
    for (const output of open) {
      while (await output.settle(toName)) {
        for (const span of output.spans()) await makePictures([output], [span], readers, signal, tell);
      }
    }
    for (const output of open) await output.finish();
    throwIfStopped(signal);
    const bytes = open.map((output) => output.bytes);
    for (const output of open) await output.keep();
    return { bytes };
  } catch (error) {
    // What is whole stays where it can be taken up; a full disk is freed.
    const isFull = error instanceof TroubleError && error.trouble.code === 'storage-full';
    const ends = signal.aborted ? signal.reason !== KEEP : isFull;
    for (const output of open) await output.stop(ends);
    throw error;
  } finally {
    readers.close();
  }
}

/** From the first frame of a file that is missing to the last; null where none is. */
function wholeSpan(output: ExportOutput): FrameSpan | null {
  const spans = output.spans();
  const [first, last] = [spans[0], spans[spans.length - 1]];
  return first && last ? { from: first.from, to: last.to } : null;
}

/** Decodes what files show in some of their frames, each master frame once for all of them. */
async function makePictures(
  outputs: readonly ExportOutput[],
  spans: readonly (FrameSpan | null)[],
  readers: ReaderPool,
  signal: AbortSignal,
  tell: (stage: 'export' | 'held') => void,
): Promise<void> {
  const makes = outputs.flatMap((output, i) => {
    const span = spans[i];
    return span ? [{ output, span }] : [];
  });
  for (const { output, span } of makes) output.begin(span);
  const parts = makes.map(({ output, span }) => planPart(output.plan, span.from, span.to));
  let decoded = 0;
  for (const run of decodeRuns(parts)) {
    const reader = await readers.of(run.source);
    for await (const { frame, sample } of reader.frames(run.in, run.out)) {
      throwIfStopped(signal);
      for (const { output } of makes) await output.offer(run, frame, sample);
      if (decoded++ % REPORT_EVERY > 0) continue;
      tell('export');
      await waitWhilePlaying(signal, () => tell('held'));
    }
  }
}
