import { BlobReader, TextReader, ZipWriter } from '@zip.js/zip.js';
import { TroubleError } from '@core/trouble/trouble';
import { openWriter, storedFile } from '../store/storage';
import { throwIfStopped, type TaskContext } from '../worker/serve-task';
import { JOB_ENTRY, masterEntry } from './archive';

/** A job to put into one file with its masters. */
export interface PackRequest {
  /** Name of the archive in the private file system. */
  name: string;
  /** The job as a JSON file. */
  text: string;
  masters: { fingerprint: string; fileName: string; bytes: number }[];
}

/** Streams a job and its masters into an archive. On any failure nothing of it stays. @returns its bytes. */
export async function packJob({ name, text, masters }: PackRequest, context: TaskContext): Promise<number> {
  const total = masters.reduce((sum, master) => sum + master.bytes, 0);
  const writer = await openWriter('archives', name);
  let bytes = 0;
  try {
    const target = new WritableStream<Uint8Array<ArrayBuffer>>({
      write(piece) {
        writer.write(piece, bytes);
        bytes += piece.byteLength;
      },
    });
    const zip = new ZipWriter(target, { level: 0, useWebWorkers: false, keepOrder: true });
    await zip.add(JOB_ENTRY, new TextReader(text));
    let before = 0;
    for (const master of masters) {
      const file = await storedFile('masters', master.fingerprint);
      if (!file) throw new TroubleError('master-gone', { file: master.fileName });
      await zip.add(masterEntry(master), new BlobReader(file), {
        signal: context.signal,
        onprogress(done) {
          context.report({ stage: 'pack', done: before + done, total });
          return undefined;
        },
      });
      throwIfStopped(context.signal);
      before += master.bytes;
    }
    await zip.close();
    await writer.finish();
    return bytes;
  } catch (error) {
    await writer.discard().catch(() => undefined);
    throw error;
  }
}
