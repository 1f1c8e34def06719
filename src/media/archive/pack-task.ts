import { BlobReader, TextReader, ZipWriter } from '@zip.js/zip.js';
import { TroubleError } from '@core/trouble/trouble';
import { type Folder, openWriter, storedFile } from '../store/storage';
import { throwIfStopped, type TaskContext } from '../worker/serve-task';

/** A stored file to put into an archive. */
interface PackedFile {
  folder: Folder;
  name: string;
  /** Path in the archive. */
  entry: string;
  /** Name of the file, for messages. */
  fileName: string;
  bytes: number;
}

/** Texts and stored files to put into one file. */
export interface PackRequest {
  /** Name of the archive in the private file system. */
  name: string;
  texts: { entry: string; text: string }[];
  files: PackedFile[];
}

/** Streams texts and files into an archive. On any failure nothing of it stays. @returns its bytes. */
export async function packFiles({ name, texts, files }: PackRequest, context: TaskContext): Promise<number> {
  const total = files.reduce((sum, file) => sum + file.bytes, 0);
  const writer = await openWriter('archives', name);
  let bytes = 0;
  try {
    const target = new WritableStream<Uint8Array<ArrayBuffer>>({
      write(piece) {
        writer.write(piece, bytes);
        bytes += piece.byteLength;
      },
    });
    // Films do not get smaller.
    const zip = new ZipWriter(target, { level: 0, useWebWorkers: false, keepOrder: true });
    for (const { entry, text } of texts) await zip.add(entry, new TextReader(text));
    let before = 0;
    for (const { folder, name: stored, entry, fileName, bytes: size } of files) {
      const file = await storedFile(folder, stored);
      if (!file) throw new TroubleError('master-gone', { file: fileName });
      await zip.add(entry, new BlobReader(file), {
        signal: context.signal,
        onprogress(done) {
          context.report({ stage: 'pack', done: before + done, total });
          return undefined;
        },
      });
      throwIfStopped(context.signal);
      before += size;
    }
    await zip.close();
    await writer.finish();
    return bytes;
  } catch (error) {
    await writer.discard().catch(() => undefined);
    throw error;
  }
}
