import { type Fingerprint, parseFingerprint } from '@core/master/fingerprint';
import { sha256 } from '@noble/hashes/sha2.js';
import { bytesToHex } from '@noble/hashes/utils.js';
import { toMasterId, type Master } from '@core/master/master';
import { toSource } from '@core/master/source';
import { TroubleError } from '@core/trouble/trouble';
import { PACKED } from '@render/frame-colour';
import { MasterReader } from './master-reader';
import { probeFile } from './probe';
import { throwIfStopped, type TaskContext } from '../worker/serve-task';
import {
  deleteStored,
  isFull,
  openWriter,
  storageRoom,
  storedFile,
  storedSizes,
  type StoredWriter,
} from '../store/storage';

/** A file that a person brings in. */
export interface BringInRequest {
  file: File;
  /** When a job lost its bytes: only the file with this fingerprint is taken. */
  wanted?: { fingerprint: Fingerprint; fileName: string };
  /** The sound track to take, from 0, or null for silence; without it the first, which must be decodable. */
  sound?: number | null;
}

/** A master that came in. */
export interface BringInResult {
  master: Master;
  /** True when its bytes were copied now: what was there before stays when this is taken back. */
  fresh: boolean;
}

/** Name of the copy while its fingerprint is not known. */
const INCOMING = 'incoming';

/**
 * Reads a file's facts, copies it in pieces into the private file system under its fingerprint, and decodes its
 * first frame. A file that is there already is not copied again. On any failure nothing of it stays.
 */
export async function bringInFile(
  { file, wanted, sound }: BringInRequest,
  context: TaskContext,
): Promise<BringInResult> {
  const facts = await probeFile(file, sound);
  const { free } = await storageRoom();
  const { fingerprint, fresh } = await copyFile(file, wanted, free, context);
  const master: Master = { ...facts, fingerprint, id: toMasterId(fingerprint) };
  try {
    context.report({ stage: 'picture', done: 0, total: 1 });
    await requirePicture(master);
    throwIfStopped(context.signal);
    return { master, fresh };
  } catch (error) {
    if (fresh) await deleteStored('masters', fingerprint);
    throw error;
  }
}

/** Copies a file in. Where there is no room for it, it may be there already: then it is read without being copied. */
async function copyFile(
  file: File,
  wanted: BringInRequest['wanted'],
  free: number,
  { report, signal }: TaskContext,
): Promise<{ fingerprint: Fingerprint; fresh: boolean }> {
  const full = new TroubleError('storage-full', { need: file.size, free });
  const hasRoom = file.size <= free;
  if (!hasRoom && ![...(await storedSizes('masters')).values()].includes(file.size)) throw full;
  const hash = sha256.create();
  const writer = hasRoom ? await openCopy(file) : null;
  try {
    let done = 0;
    for await (const piece of file.stream()) {
      throwIfStopped(signal);
      hash.update(piece);
      writer?.write(piece as Uint8Array<ArrayBuffer>, done);
      done += piece.byteLength;
      report({ stage: 'copy', done, total: file.size });
    }
    const fingerprint = parseFingerprint(bytesToHex(hash.digest()));
    if (wanted && wanted.fingerprint !== fingerprint) {
      throw new TroubleError('wrong-file', { file: file.name, wanted: wanted.fileName });
    }
    const known = await storedFile('masters', fingerprint);
    if (known) await writer?.discard();
    else if (writer) await writer.finish(fingerprint);
    else throw full;
    return { fingerprint, fresh: known === null };
  } catch (error) {
    await writer?.discard().catch(() => undefined);
    throw toRoomError(file, error);
  }
}

const openCopy = (file: File): Promise<StoredWriter> =>
  openWriter('masters', `${INCOMING}-${crypto.randomUUID()}`).catch((error: unknown) => {
    throw toRoomError(file, error);
  });

/** A browser may refuse room wherever a file is touched: opened, written or closed. */
const toRoomError = (file: File, error: unknown): unknown =>
  isFull(error) ? new TroubleError('storage-full', { need: file.size, free: null }) : error;

/** Decodes one frame: a container may promise what its data does not hold. */
async function requirePicture(master: Master): Promise<void> {
  const reader = await MasterReader.open(toSource(master));
  try {
    const sample = await reader.frame(0);
    sample?.close();
    if (!sample) throw new TroubleError('no-frames', { file: master.fileName });
    if (master.colour.fullRange && (sample.format ?? '') in PACKED) {
      throw new TroubleError('range-clipped', { file: master.fileName });
    }
  } catch (error) {
    if (error instanceof TroubleError) throw error;
    const detail = error instanceof Error ? error.message : String(error);
    throw new TroubleError('damaged', { file: master.fileName, detail });
  } finally {
    reader.close();
  }
}
