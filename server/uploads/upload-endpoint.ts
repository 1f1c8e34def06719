import { mkdirSync } from 'node:fs';
import { readdir, rm, stat } from 'node:fs/promises';
import path from 'node:path';
import { FileStore } from '@tus/file-store';
import { Server } from '@tus/server';
import type { Express } from 'express';
import { isRandomId, type RandomId } from '../../src/core/figures/random-id';
import type { Database } from '../store/database';
import { UploadRecords } from '../store/upload-records';
import { promiseRoom } from './room';

/** Where uploads come in by the open resumable protocol (tus 1.0.0): one folder, one row of the database each. */
export class UploadEndpoint {
  private readonly records: UploadRecords;

  constructor(
    private readonly folder: string,
    database: Database,
    name: string,
  ) {
    this.records = new UploadRecords(database, name, folder);
  }

  /**
   * Adds a door to a server.
   * @param name in the database. @param address from the server's root. @param mostBytes of one upload.
   */
  static add(
    app: Express,
    database: Database,
    {
      name,
      address,
      folder,
      mostBytes,
    }: { name: string; address: string; folder: string; mostBytes: number },
  ): UploadEndpoint {
    mkdirSync(folder, { recursive: true });
    const door = new UploadEndpoint(folder, database, name);
    const tus = new Server({
      path: address,
      datastore: new FileStore({ directory: folder, configstore: door.records }),
      maxSize: mostBytes,
      relativeLocation: true,
      async onUploadCreate(_request, upload) {
        const { id, size } = upload;
        // Both stand in the protocol as they are thrown.
        if (size === undefined) throw { status_code: 400, body: 'the length must be known' };
        const write = () => void door.records.set(id, upload);
        const promised = await promiseRoom(database, folder, size, write);
        if (!promised) throw { status_code: 507, body: 'there is no room for it' };
        return {};
      },
      onUploadFinish(_request, { id }) {
        door.records.setWhole(id);
        return Promise.resolve({});
      },
    });
    app.all(address, (request, response) => tus.handle(request, response));
    app.all(`${address}/:id`, (request, response) => {
      if (isRandomId(request.params.id ?? '')) return tus.handle(request, response);
      response.status(404).json({ error: 'no such upload' });
      return undefined;
    });
    return door;
  }

  /** Where an upload's bytes lie. */
  getFile(id: RandomId): string {
    return path.join(this.folder, id);
  }

  /** Finds whether an upload is missing, partial or whole. */
  async state(id: string): Promise<'missing' | 'partial' | 'whole'> {
    if (!isRandomId(id)) return 'missing';
    const record = this.records.find(id);
    if (!record) return 'missing';
    const size = await stat(this.getFile(id)).then(
      (file) => file.size,
      () => null,
    );
    if (size === null) return 'missing';
    return size === record.size && size > 0 ? 'whole' : 'partial';
  }

  /** Forgets an upload and its bytes. */
  async forget(id: RandomId): Promise<void> {
    await rm(this.getFile(id), { force: true });
    await this.records.delete(id);
  }

  /**
   * Forgets uploads that are older than a moment, and bytes that no record knows.
   * @param keeps an upload that is still worked on.
   */
  async sweep(before: number, keeps: (id: RandomId) => boolean): Promise<void> {
    for (const { id } of this.records.madeBefore(before)) if (!keeps(id)) await this.forget(id);
    const known = new Set(this.records.ids());
    for (const file of await readdir(this.folder)) {
      // A file that is being made now has no record yet.
      if (!known.has(file.slice(0, 32)) && (await olderThan(path.join(this.folder, file), before))) {
        await rm(path.join(this.folder, file), { force: true });
      }
    }
  }
}

/**
 * Tells whether a file was last changed before a moment, or a minute ago where the moment is later than that.
 */
async function olderThan(file: string, moment: number): Promise<boolean> {
  const changed = await stat(file).then(
    ({ mtimeMs }) => mtimeMs,
    () => Infinity,
  );
  return changed < Math.max(moment, Date.now() - 60_000);
}
