import type { RandomId } from '../../src/core/figures/random-id';
import { sha256 } from '../sha256';
import type { UploadEndpoint } from '../uploads/upload-endpoint';
import type { MasterRecords } from './master-records';

/** Masters and fonts that browsers sent: each belongs to the one that sent it, and is known by what is in it. */
export class Masters {
  constructor(
    private readonly records: MasterRecords,
    private readonly door: UploadEndpoint,
  ) {}

  /** Fingerprints of those that a browser sent and that are whole. */
  async ofVisitor(visitor: string): Promise<string[]> {
    const whole: string[] = [];
    for (const { fingerprint, upload } of this.records.ofVisitor(visitor)) {
      if ((await this.door.state(upload)) === 'whole') whole.push(fingerprint);
    }
    return whole;
  }

  /**
   * Takes an upload as a master.
   * @returns what is wrong with it, or null.
   */
  async take(
    visitor: string,
    fingerprint: string,
    upload: RandomId,
  ): Promise<'missing' | 'partial' | 'another' | null> {
    const state = await this.door.state(upload);
    if (state !== 'whole') return state;
    if ((await sha256(this.door.getFile(upload))) !== fingerprint) {
      await this.door.forget(upload);
      return 'another';
    }
    const before = this.records.find(visitor, fingerprint);
    this.records.put({ visitor, fingerprint, upload });
    if (before && before.upload !== upload) await this.door.forget(before.upload);
    return null;
  }

  /** Where a master's bytes lie; null where they are not here. It counts as used. */
  async fileOf(visitor: string, fingerprint: string): Promise<string | null> {
    const known = this.records.find(visitor, fingerprint);
    if (!known || (await this.door.state(known.upload)) !== 'whole') return null;
    this.records.use(visitor, fingerprint);
    return this.door.getFile(known.upload);
  }

  /** Something whole whose fingerprint begins so; null where nothing here does. It counts as used. */
  async listByPrefix(visitor: string, begins: string): Promise<{ fingerprint: string; file: string } | null> {
    const known = (await this.ofVisitor(visitor)).find((fingerprint) => fingerprint.startsWith(begins));
    const file = known === undefined ? null : await this.fileOf(visitor, known);
    return known === undefined || file === null ? null : { fingerprint: known, file };
  }

  async forget(visitor: string, fingerprint: string): Promise<void> {
    const known = this.records.find(visitor, fingerprint);
    this.records.forget(visitor, fingerprint);
    if (known) await this.door.forget(known.upload);
  }

  /** Forgets what was not used since a moment, and uploads that never became a master. */
  async sweep(before: number): Promise<void> {
    for (const { visitor, fingerprint } of this.records.usedBefore(before))
      await this.forget(visitor, fingerprint);
    await this.door.sweep(before, (upload) => this.records.hasUpload(upload));
  }
}
