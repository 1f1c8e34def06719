import { EventEmitter } from 'node:events';
import { access } from 'node:fs/promises';
import { clearTimeout, setTimeout } from 'node:timers';
import { setTimeout as wait } from 'node:timers/promises';
import PQueue from 'p-queue';
import { waitBefore } from '../../src/core/posting/retry';
import { momentOf } from '../../src/core/posting/when';
import { type Posted, WAITS } from '../../src/core/posting/post-order';
import { fitted } from '../../src/core/outlets/fitted';
import type { OutletPost } from '../../src/core/outlets/outlet-api';
import { AccountError } from '../accounts/accounts';
import { sha256 as sha256Of } from '../sha256';
import type { UploadDoor } from '../uploads/upload-door';
import { OutletClientError } from './outlet-way';
import type { PostingChange, PostingRecord, PostingRecords } from './posting-records';
import type { Speaker } from './speaker';

/** Posts that are on their way at a time, each of another account. */
const AT_ONCE = 4;
/** A time that went by this long before the server started again is for the person to decide on, in milliseconds. */
const MISSED_AFTER = 60_000;
/** The outlet is asked where a post stands after so many milliseconds, and then less and less often. */
const [ASK_FIRST, ASK_MOST] = [300, 5000];
/** A post that no try brought further for so long is given up, in milliseconds. */
const PATIENCE = 24 * 3600 * 1000;
/** Posts that are compared at a time, and how often one is tried. */
const [COMPARED_AT_ONCE, COMPARE_TRIES] = [2, 8];
/** Progress is told so often at most, in milliseconds. */
const TELL_EVERY = 200;

/** What carries posts to their outlets works with. */
export interface DispatchOptions {
  records: PostingRecords;
  speaker: Speaker;
  door: UploadDoor;
  /** Holds what a viewer gets against what was sent; what comes of it is told by itself. */
  compare: (record: PostingRecord, signal: AbortSignal) => Promise<void>;
}

/**
 * Carries posts to their outlets: each when its time has come, in order for each account, several side by side. What was
 * done of each is written down as it is done, so that a server that ended goes on where it was.
 */
export class Dispatcher {
  /** Told a post that changed. */
  readonly news = new EventEmitter<{ change: [PostingRecord] }>();
  private readonly running = new Map<
    string,
    { work: Promise<void>; stop: AbortController; account: string }
  >();
  /** Posts that are up, and held against what was sent: beside all else, since their outlets may be busy. */
  private readonly comparing = new Map<string, { work: Promise<void>; stop: AbortController }>();
  private readonly comparisons = new PQueue({ concurrency: COMPARED_AT_ONCE });
  private clock: ReturnType<typeof setTimeout> | undefined;
  private ended = false;

  constructor(private readonly options: DispatchOptions) {}

  /** Begins, and goes on with what a server that ended left. */
  start(): void {
    const { records } = this.options;
    const now = Date.now();
    for (const { id } of records.in('sending', 'processing'))
      records.change(id, { state: 'waiting', due: now, tries: 1 });
    for (const { id, when, ahead, tries } of records.in('waiting'))
      if (when !== null && !ahead && tries === 0 && momentOf(when) < now - MISSED_AFTER)
        this.change(id, { state: 'missed' });
    for (const up of records.in('up'))
      if (up.compared === null && (up.upAt ?? 0) > now - PATIENCE) this.compareSoon(up);
    this.pump();
  }

  /** Sees to what is due, now and whenever something changes. */
  pump(): void {
    if (this.ended) return;
    const { records } = this.options;
    const now = Date.now();
    const busy = new Set([...this.running.values()].map(({ account }) => account));
    for (const { id, account } of records.due(now)) {
      if (this.running.size >= AT_ONCE) break;
      const record = busy.has(account) || this.running.has(id) ? null : records.find(id);
      if (record) this.begin(record);
    }
    clearTimeout(this.clock);
    const next = records.nextDue(now);
    // A timer holds 2³¹ − 1 milliseconds at most.
    if (next !== null) this.clock = setTimeout(() => this.pump(), Math.min(next - now + 5, 2 ** 31 - 1));
  }

  /** Begins with a post before its time, where it still waits for that. */
  beginAhead(id: string): void {
    const record = this.ended ? null : this.options.records.find(id);
    if (record?.state !== 'waiting' || record.when === null || record.due !== momentOf(record.when)) return;
    this.change(id, { due: Date.now() });
    this.pump();
  }

  /** Stops a post that is on its way; resolves when nothing is done with it any more. */
  async halt(id: string): Promise<void> {
    for (const one of [this.running.get(id), this.comparing.get(id)]) {
      one?.stop.abort();
      await one?.work;
    }
  }

  async close(): Promise<void> {
    this.ended = true;
    clearTimeout(this.clock);
    await Promise.all([...this.running.keys(), ...this.comparing.keys()].map((id) => this.halt(id)));
  }

  /** Writes down what changed of a post, and tells it. */
  change(id: string, change: PostingChange): PostingRecord | null {
    const changed = this.options.records.change(id, change);
    if (changed) this.news.emit('change', changed);
    return changed;
  }

  private begin(record: PostingRecord): void {
    const stop = new AbortController();
    const work = this.carry(record, stop.signal)
      .catch((error: unknown) => this.afterFailure(record.id, error, stop.signal))
      .finally(() => {
        this.running.delete(record.id);
        this.pump();
      });
    this.running.set(record.id, { work, stop, account: record.account });
  }

  private async carry({ id }: PostingRecord, signal: AbortSignal): Promise<void> {
    if (this.now(id).outletId === null) {
      this.change(id, { state: 'sending', wait: null, hold: null });
      await this.send(id, signal);
    }
    signal.throwIfAborted();
    const { outletId, when, ahead } = this.now(id);
    const isLater = when !== null && momentOf(when) > Date.now();
    if (outletId === null)
      return void this.change(id, { state: 'waiting', due: when === null ? Date.now() : momentOf(when) });
    this.change(id, { state: 'processing', ahead: false, wait: null, hold: null });
    const found = await this.followed(id, signal);
    if (found.state === 'up' && isLater) {
      this.change(id, { state: 'waiting', ahead: true, share: 1, due: momentOf(when), tries: 0 });
    } else if (found.state === 'up') {
      const upAt = ahead && when !== null ? momentOf(when) : Date.now();
      const up = this.change(id, { state: 'up', page: found.page, share: 1, upAt, reasons: [] });
      if (up) this.compareSoon(up);
    } else if (found.state === 'refused') {
      this.change(id, { state: 'refused', reasons: found.reasons, outletId: null });
    } else {
      this.change(id, { state: 'failed', reasons: [found.reason], outletId: null });
    }
  }

  private compareSoon(record: PostingRecord): void {
    if (this.ended || this.comparing.has(record.id)) return;
    const stop = new AbortController();
    const work = this.comparisons
      .add(() => this.compare(record, stop.signal))
      // It is up all the same.
      .catch(() => undefined)
      .then(() => void this.comparing.delete(record.id));
    this.comparing.set(record.id, { work, stop });
  }

  /** Holds what a viewer gets against what was sent, also where the outlet cannot be asked at once. */
  private async compare(record: PostingRecord, signal: AbortSignal): Promise<void> {
    for (let tries = 1; !signal.aborted; tries++) {
      try {
        return await this.options.compare(record, signal);
      } catch (error) {
        if (!(error instanceof OutletClientError) || tries === COMPARE_TRIES) throw error;
        await wait(1000 * waitBefore(tries, error.retryAfter, Math.random()), undefined, { signal });
      }
    }
  }

  /** Uploads what is missing of its file, and posts it; before its time only where the outlet keeps that itself. */
  private async send(id: string, signal: AbortSignal): Promise<void> {
    const { door, speaker } = this.options;
    const { upload, bytes, sha256 } = this.now(id);
    const file = door.fileOf(upload);
    await access(file);
    if (sha256 === null) this.change(id, { sha256: await sha256Of(file) });
    if (this.now(id).outletUpload === null) {
      let told = 0;
      const outletUpload = await speaker.as(this.now(id), (way, token) =>
        way.upload(
          token,
          { file, bytes, address: this.now(id).address },
          {
            began: (address) => void this.change(id, { address }),
            sent: (sent) => {
              const isLate = Date.now() - told > TELL_EVERY;
              if (!isLate || signal.aborted) return;
              told = Date.now();
              this.change(id, { sent, tries: 0 });
            },
          },
          signal,
        ),
      );
      this.change(id, { outletUpload, sent: bytes, tries: 0 });
    }
    signal.throwIfAborted();
    const { words, when, round, outletUpload } = this.now(id);
    const posted = await speaker.as(this.now(id), async (way, token) => {
      const abilities = await way.abilities();
      if (words.audience === 'private' && !abilities.drafts.includes(words.placement))
        throw new OutletClientError('bad-request', 'nothing can be private there, so choose who may see it');
      const moment = when && momentOf(when);
      if (!abilities.schedule && moment !== null && moment > Date.now()) return null;
      // Also once it has gone by: a post that is asked for again must be the same.
      const publishAt = abilities.schedule && moment !== null ? new Date(moment).toISOString() : null;
      const form = { ...fitted(words, abilities), upload: outletUpload ?? '', publishAt };
      return way.post(token, `${id}-${round}`, form);
    });
    if (posted) this.change(id, { outletId: posted.id });
  }

  /** Asks the outlet until it is done with a post. */
  private async followed(
    id: string,
    signal: AbortSignal,
  ): Promise<Exclude<OutletPost, { state: 'processing' }>> {
    for (let pause = ASK_FIRST; ; pause = Math.min(ASK_MOST, 1.5 * pause)) {
      const record = this.now(id);
      const found = await this.options.speaker.as(record, (way, token) =>
        way.stateOf(token, record.outletId ?? ''),
      );
      if (found.state !== 'processing') return found;
      this.change(id, { share: found.share });
      await wait(pause, undefined, { signal });
    }
  }

  private now(id: string): PostingRecord {
    const record = this.options.records.find(id);
    if (!record) throw new DOMException('the post was called back', 'AbortError');
    return record;
  }

  /** What becomes of a post that a try did not bring to its end. */
  private afterFailure(id: string, error: unknown, signal: AbortSignal): void {
    const record = this.options.records.find(id);
    if (!record) return;
    // Stopped: it stays as it is until somebody, or the next start, goes on with it.
    if (signal.aborted) return void this.change(id, { state: 'waiting' });
    if (error instanceof AccountError) return void this.hold(id, error.state);
    if (!(error instanceof OutletClientError)) {
      if (isMissing(error))
        return void this.change(id, { state: 'failed', reasons: ['The file is not here any more.'] });
      console.error(error);
      return this.later(record, new OutletClientError('down', String(error)));
    }
    const { code } = error;
    if (code === 'token') return void this.hold(id, 'expired');
    if (code === 'scope') return void this.hold(id, 'scope');
    if (code === 'no-upload') {
      this.change(id, { address: null, outletUpload: null, outletId: null, sent: 0 });
      return this.later(record, error);
    }
    if (code === 'partial-upload') {
      this.change(id, { outletUpload: null });
      return this.later(record, error);
    }
    if (code === 'no-post') return void this.change(id, { state: 'down', outletId: null });
    if ((WAITS as readonly string[]).includes(code)) return this.later(record, error);
    this.change(id, { state: 'failed', reasons: [`The outlet did not take it: ${error.message}.`] });
  }

  private hold(id: string, hold: Posted['hold']): void {
    this.change(id, { state: 'held', hold, wait: null });
  }

  private later({ id, tries, madeAt, when }: PostingRecord, { code, retryAfter }: OutletClientError): void {
    const failed = tries + 1;
    if (Date.now() - (when === null ? madeAt : momentOf(when)) > PATIENCE)
      return void this.change(id, {
        state: 'failed',
        reasons: ['The outlet could not be reached for a day.'],
      });
    const until = Date.now() + 1000 * waitBefore(failed, retryAfter, Math.random());
    const why = WAITS.find((one) => one === code) ?? 'answer';
    this.change(id, { state: 'waiting', tries: failed, due: until, wait: { why, until } });
  }
}

const isMissing = (error: unknown): boolean => (error as NodeJS.ErrnoException).code === 'ENOENT';
