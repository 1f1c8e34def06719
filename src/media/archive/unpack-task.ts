import { sha256 } from '@noble/hashes/sha2.js';
import { bytesToHex } from '@noble/hashes/utils.js';
import { BlobReader, type FileEntry, TextWriter, ZipReader } from '@zip.js/zip.js';
import { readJobFile } from '@core/interchange/job-file';
import type { Master } from '@core/master/master';
import { TroubleError } from '@core/trouble/trouble';
import { deleteStored, openWriter, requireRoom, storedFile } from '../store/storage';
import { throwIfStopped, type TaskContext } from '../worker/serve-task';
import { JOB_ENTRY, masterEntry, MAX_JOB_BYTES } from './archive';

/** An archive that a person brings in. */
export interface UnpackRequest {
  file: File;
}

/** A job that came out of an archive. */
export interface UnpackResult {
  /** The job as a JSON file. */
  text: string;
  /** Fingerprints of masters that were copied now: they go again when the job is not taken. */
  fresh: string[];
}

/**
 * Copies the masters of an archive into the private file system, each held to its fingerprint. On any failure nothing
 * that came in stays. @throws TroubleError `job-file` for what is no such archive.
 */
export async function unpackJob({ file }: UnpackRequest, context: TaskContext): Promise<UnpackResult> {
  const refuse = (detail: string) => new TroubleError('job-file', { file: file.name, detail });
  const zip = new ZipReader(new BlobReader(file), { useWebWorkers: false });
  const fresh: string[] = [];
  try {
    const entries = await zip.getEntries().catch(() => {
      throw refuse('it is no archive, or it was cut off');
    });
    const findEntry = (name: string) =>
      entries.find((entry): entry is FileEntry => !entry.directory && entry.filename === name) ?? null;
    const own = findEntry(JOB_ENTRY);
    if (!own) throw refuse('there is no job in it');
    if (own.uncompressedSize > MAX_JOB_BYTES) throw refuse('its job is larger than any job is');
    const text = await own.getData(new TextWriter());
    const read = readJobFile(text);
    if (!read.ok) throw refuse(read.detail);
    const { masters } = read.job;
    const total = masters.reduce((sum, master) => sum + master.bytes, 0);
    // Those that are stored already, and those that are not in it, need none.
    let need = 0;
    for (const master of masters) {
      if (findEntry(masterEntry(master)) && !(await storedFile('masters', master.fingerprint)))
        need += master.bytes;
    }
    await requireRoom(need);
    let before = 0;
    for (const master of masters) {
      const entry = findEntry(masterEntry(master));
      // A master that is not in the archive is asked for when the job is opened.
      if (entry && !(await storedFile('masters', master.fingerprint))) {
        const from = before;
        const reportDone = (done: number) => context.report({ stage: 'unpack', done: from + done, total });
        await copyOut(entry, master, reportDone, context.signal, refuse);
        fresh.push(master.fingerprint);
      }
      before += master.bytes;
    }
    throwIfStopped(context.signal);
    return { text, fresh };
  } catch (error) {
    for (const fingerprint of fresh) await deleteStored('masters', fingerprint).catch(() => undefined);
    throw error;
  } finally {
    await zip.close();
  }
}

async function copyOut(
  entry: FileEntry,
  master: Master,
  told: (done: number) => void,
  signal: AbortSignal,
  refuse: (detail: string) => TroubleError,
): Promise<void> {
  const other = refuse(`its ${master.fileName} is another file than the job's master`);
  if (entry.uncompressedSize !== master.bytes) throw other;
  const hash = sha256.create();
  const writer = await openWriter('masters', `unpacked-${crypto.randomUUID()}`);
  let done = 0;
  try {
    const target = new WritableStream<Uint8Array<ArrayBuffer>>({
      write(piece) {
        // What unpacks to more than it says is not written to its end.
        if (done + piece.byteLength > master.bytes) throw other;
        hash.update(piece);
        writer.write(piece, done);
        done += piece.byteLength;
        told(done);
      },
    });
    await entry.getData(target, { signal });
    throwIfStopped(signal);
    if (bytesToHex(hash.digest()) !== master.fingerprint) throw other;
    await writer.finish(master.fingerprint);
  } catch (error) {
    await writer.discard().catch(() => undefined);
    if (error instanceof TroubleError) throw error;
    throw signal.aborted ? new TroubleError('cancelled') : refuse(`its ${master.fileName} is damaged`);
  }
}
