import { TroubleError } from '@core/trouble/trouble';
import { deleteStored, type Folder, openFolder, isFull } from './storage';

/** A stored file that is written to its end and read anywhere, and that stays when its page is ended. Workers only. */
export class KeptLog {
  private end: number;

  private constructor(
    private readonly access: FileSystemSyncAccessHandle,
    private readonly folder: Folder,
    private readonly name: string,
  ) {
    this.end = access.getSize();
  }

  static async open(folder: Folder, name: string): Promise<KeptLog> {
    const handle = await (await openFolder(folder)).getFileHandle(name, { create: true });
    return new KeptLog(await handle.createSyncAccessHandle(), folder, name);
  }

  /** Bytes so far. */
  get size(): number {
    return this.end;
  }

  /** @returns where it lies. @throws TroubleError `storage-full` */
  append(data: Uint8Array<ArrayBuffer>): number {
    const at = this.end;
    // Past the quota some browsers throw and some write less than they were given.
    const full = new TroubleError('storage-full', { need: at + data.byteLength, free: null });
    try {
      if (this.access.write(data, { at }) !== data.byteLength) throw full;
    } catch (error) {
      throw isFull(error) ? full : error;
    }
    this.end += data.byteLength;
    return at;
  }

  /** Bytes from a place on; fewer where it ends. */
  read(at: number, length: number): Uint8Array<ArrayBuffer> {
    const bytes = new Uint8Array(Math.max(0, Math.min(length, this.end - at)));
    this.access.read(bytes, { at });
    return bytes;
  }

  /** Leaves out what is behind a place. */
  cut(at: number): void {
    this.access.truncate(at);
    this.end = at;
  }

  /** Has all that was written really stored. */
  flush(): void {
    this.access.flush();
  }

  close(): void {
    this.access.close();
  }

  /** Closes it, and leaves nothing of it. */
  async remove(): Promise<void> {
    this.close();
    await deleteStored(this.folder, this.name);
  }
}
