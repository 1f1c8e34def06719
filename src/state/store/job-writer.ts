import { type Entry, toHead, type JobFile } from '@core/job/document';
import { toTrouble, type Trouble } from '@core/trouble/trouble';
import { appendEntry, compactJob, StaleWrite } from './job-store';
import { tellTabs } from './tabs';

/** Changes that are stored one by one before the job is written whole again. */
const FOLD_AFTER = 150;
/** Delay after which a failed write is tried again. */
const TRY_AGAIN_MS = 5000;

/** Services of the writer. */
interface Surroundings {
  /** A job as it is in this tab by now. */
  fileOf(id: string): JobFile | undefined;
  /** Told whether what was done to a job is stored. */
  onTrouble(id: string, trouble: Trouble | null): void;
  /** The stored job is another than the one that was changed here; told once with what is here. */
  onConflict(file: JobFile): void;
}

/** Where the stored job stands. */
interface StoredRevision {
  /** The revision that is stored, as far as this tab knows. */
  revision: number;
  /** Changes stored one by one since the job was written whole. */
  entries: number;
  /** True when the job here is in conflict with the stored one; until that is read. */
  conflict: boolean;
  /** Writes a job that is not stored at all yet; null once it is. */
  create: ((file: JobFile) => Promise<void>) | null;
  /** Writes under way, one after another. Never rejects. */
  tail: Promise<void>;
}

/** Stores changes of jobs in order, each by itself; a job that could not be stored is written whole the next time. */
export class JobWriter {
  private readonly jobs = new Map<string, StoredRevision>();

  constructor(private readonly around: Surroundings) {}

  /** Takes note of the revision that was read, or written by another tab. */
  known(id: string, revision: number): void {
    const stored = this.of(id);
    stored.revision = revision;
    stored.conflict = false;
  }

  /** Stores a new job. */
  create(file: JobFile, write: (file: JobFile) => Promise<void>): void {
    this.known(file.job.id, file.revision);
    this.of(file.job.id).create = write;
    // The queue does it, now and with each later write until it succeeds.
    this.queue(file.job.id, () => Promise.resolve());
  }

  append(file: JobFile, entry: Entry): void {
    const { id } = file.job;
    this.queue(id, async (stored) => {
      if (stored.revision >= entry.revision) return;
      // After a write that failed there is a gap: what is here now is written whole.
      if (stored.revision !== entry.revision - 1) return this.fold(id, stored);
      await appendEntry(file, entry);
      stored.revision = entry.revision;
      stored.entries += 1;
      tellTabs({ type: 'changed', id, entry, head: toHead(file) });
      if (stored.entries >= FOLD_AFTER) this.foldSoon(id);
    });
  }

  /** Writes a job whole when there is time for it, so that it opens quickly. */
  foldSoon(id: string): void {
    const fold = () => this.queue(id, (stored) => this.fold(id, stored));
    if (typeof requestIdleCallback === 'function') requestIdleCallback(fold);
    else setTimeout(fold);
  }

  /** Waits until all that was done is stored, or could not be. */
  async settled(id: string): Promise<void> {
    await this.of(id).tail;
  }

  private async fold(id: string, stored: StoredRevision): Promise<void> {
    const file = this.around.fileOf(id);
    if (!file) return;
    const { revision } = stored;
    await compactJob(file, revision);
    stored.revision = file.revision;
    stored.entries = 0;
    if (file.revision !== revision) tellTabs({ type: 'rewritten', id, head: toHead(file) });
  }

  private queue(id: string, write: (stored: StoredRevision) => Promise<void>): void {
    const stored = this.of(id);
    stored.tail = stored.tail
      .then(async () => {
        if (stored.conflict) return;
        if (stored.create) await this.writeFirst(id, stored, stored.create);
        await write(stored);
        this.around.onTrouble(id, null);
      })
      .catch((error: unknown) => {
        const file = this.around.fileOf(id);
        if (error instanceof StaleWrite && file) {
          stored.conflict = true;
          this.around.onConflict(file);
        } else if (file) {
          this.around.onTrouble(id, toTrouble(error, 'save-failed', {}));
          this.tryLater(id);
        }
      });
  }

  /** Stores a job that never was, as it is here by now. */
  private async writeFirst(
    id: string,
    stored: StoredRevision,
    create: NonNullable<StoredRevision['create']>,
  ): Promise<void> {
    const file = this.around.fileOf(id);
    if (!file) return;
    await create(file);
    stored.create = null;
    stored.revision = file.revision;
    tellTabs({ type: 'rewritten', id, head: toHead(file) });
  }

  /** Stores what could not be stored once more after a while, also where nothing is changed any more. */
  private tryLater(id: string): void {
    setTimeout(() => {
      const file = this.around.fileOf(id);
      const stored = this.of(id);
      if (file && (stored.create || stored.revision < file.revision)) this.foldSoon(id);
    }, TRY_AGAIN_MS);
  }

  private of(id: string): StoredRevision {
    const fresh = { revision: 0, entries: 0, conflict: false, create: null, tail: Promise.resolve() };
    const known = this.jobs.get(id) ?? fresh;
    this.jobs.set(id, known);
    return known;
  }
}
