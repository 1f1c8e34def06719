import { EventEmitter } from 'node:events';
import { access } from 'node:fs/promises';
import { clearTimeout, setTimeout } from 'node:timers';
import { setTimeout as wait } from 'node:timers/promises';
import { waitBefore } from '../../src/core/posting/retry';
import { toTimestamp } from '../../src/core/posting/when';
import { type DispatchedPost, WAITS } from '../../src/core/posting/post-order';
import { fitToAbilities } from '../../src/core/outlets/fit-to-abilities';
import type { Abilities, OutletPost } from '../../src/core/outlets/outlet-api';
import type { PostForm } from '../../src/core/outlets/post-form';
import { AccountError } from '../accounts/accounts';
import { sha256 as sha256Of } from '../sha256';
import type { UploadEndpoint } from '../uploads/upload-endpoint';
import { Comparisons } from './comparisons';
import { OutletClientError, type OutletConnection } from './outlet-connection';
import type { PostingChange, PostingRecord, PostingRecords } from './posting-records';
import type { AuthorizedClient } from './authorized-client';

/** Posts that are sent at a time, each of another account; those that their outlets process are not among them. */
const AT_ONCE = 4;
/** Posts of an account wait for the one that its outlet processes, so that they come up in order: for so long at most. */
const ORDER_PATIENCE_MS = 600_000;
/** A time that went by for so long while the server did not run is for the person to decide on, in milliseconds. */
const MISSED_AFTER_MS = 60_000;
/** The server wakes this often: one long timer would sleep on with a machine that sleeps. */
const WAKE_EVERY_MS = 60_000;
/** After something could not be written down, nothing is begun for so long. */
const REST_MS = 1000;
/** The outlet is asked where a post stands after so many milliseconds, and then less and less often. */
const [ASK_FIRST, ASK_MOST, ASK_SLOW] = [300, 5000, 60_000];
/** A post that no try brought further for so long is given up, in milliseconds. */
const PATIENCE = 24 * 3600 * 1000;
/** Progress is told so often at most, in milliseconds. */
const TELL_EVERY = 200;

/** A post that is on its way. */
interface RunningPost {
  work: Promise<void>;
  stop: AbortController;
  account: string;
  /** Since when its outlet processes it, in milliseconds since 1970; null while it is sent. */
  processingSince: number | null;
}

/** Services of the dispatcher. */
export interface DispatchOptions {
  records: PostingRecords;
  speaker: AuthorizedClient;
  door: UploadEndpoint;
  /** Holds what a viewer gets against what was sent; what comes of it is told by itself. */
  compare: (record: PostingRecord, signal: AbortSignal) => Promise<void>;
  /** Takes back what the outlet has of a post that its person called back, and forgets it. */
  recall: (record: PostingRecord) => Promise<void>;
}

/**
 * Carries posts to their outlets: each when its time has come, in order for each account, several side by side. What was
 * done of each is written down as it is done, so that a server that ended goes on where it was.
 */
export class Dispatcher {
  /** Told a post that changed. */
  readonly news = new EventEmitter<{ change: [PostingRecord] }>();
  private readonly running = new Map<string, RunningPost>();
  private readonly comparisons: Comparisons;
  /** Acts of people on posts, by post and one after another: nothing else is begun with those meanwhile. */
  private readonly acts = new Map<string, Promise<unknown>>();
  private clock: ReturnType<typeof setTimeout> | undefined;
  /** When due posts were last looked for, and until when nothing is begun: milliseconds since 1970. */
  private awakeAt = 0;
  private restUntil = 0;
  private ended = false;

  constructor(private readonly options: DispatchOptions) {
    this.comparisons = new Comparisons(options.compare);
  }

  /** Begins, and goes on with what a server that ended left. */
  start(): void {
    const { records } = this.options;
    this.startDuePosts();
    for (const up of records.in('up'))
      if (up.compared === null && (up.upAt ?? 0) > Date.now() - PATIENCE) this.comparisons.add(up);
  }

  /** Starts every post that is due, and schedules the next wake-up. A database that cannot be used is tried again. */
  startDuePosts(): void {
    if (this.ended) return;
    clearTimeout(this.clock);
    const now = Date.now();
    let wakeMs = Math.max(0, this.restUntil - now);
    if (wakeMs === 0) {
      try {
        this.markMissed(now);
        this.resumeStranded(now);
        this.beginDue(now);
        const next = this.options.records.nextDue(now);
        wakeMs = next === null ? WAKE_EVERY_MS : Math.min(WAKE_EVERY_MS, next - now + 5);
      } catch (error) {
        this.rest(error);
        wakeMs = REST_MS;
      }
    }
    this.clock = setTimeout(() => this.startDuePosts(), wakeMs);
  }

  /** Leaves posts to their person whose time went by while this server was off, or the machine slept. */
  private markMissed(now: number): void {
    const since = this.awakeAt;
    if (now - since > 2 * WAKE_EVERY_MS) {
      for (const { id, when, ahead, tries, recalled } of this.options.records.in('waiting')) {
        if (when === null || ahead || recalled || tries > 0) continue;
        const moment = toTimestamp(when);
        if (moment > since && moment < now - MISSED_AFTER_MS) this.change(id, { state: 'missed' });
      }
    }
    this.awakeAt = now;
  }

  /** Takes up what is recorded as on its way and is not: a server ended over it, or its end could not be recorded. */
  private resumeStranded(now: number): void {
    for (const { id } of this.options.records.in('sending', 'processing')) {
      if (!this.running.has(id) && !this.acts.has(id))
        this.change(id, { state: 'waiting', due: now, tries: 1 });
    }
  }

  private beginDue(now: number): void {
    const { records } = this.options;
    const onTheirWay = [...this.running.values()];
    let sending = onTheirWay.filter(({ processingSince }) => processingSince === null).length;
    const isWaitedFor = ({ processingSince }: RunningPost) =>
      now - (processingSince ?? now) < ORDER_PATIENCE_MS;
    const busy = new Set(onTheirWay.filter(isWaitedFor).map(({ account }) => account));
    for (const { id, account } of records.due(now)) {
      if (sending >= AT_ONCE) break;
      const isTaken = busy.has(account) || this.running.has(id) || this.acts.has(id);
      const record = isTaken ? null : records.find(id);
      if (!record) continue;
      this.begin(record);
      sending += 1;
    }
  }

  private rest(error: unknown): void {
    console.error(error);
    this.restUntil = Date.now() + REST_MS;
  }

  /** Does something with a post while nothing else is done with it: what was on its way is stopped first. */
  async withStopped<T>(id: string, act: () => Promise<T>): Promise<T> {
    const before = this.acts.get(id) ?? Promise.resolve();
    const own = before
      .catch(() => undefined)
      .then(() => this.halt(id))
      .then(act);
    this.acts.set(id, own);
    try {
      return await own;
    } finally {
      if (this.acts.get(id) === own) this.acts.delete(id);
      this.startDuePosts();
    }
  }

  /** Begins with a post before its time, where it still waits for that. */
  beginAhead(id: string): void {
    const record = this.ended ? null : this.options.records.find(id);
    if (record?.state !== 'waiting' || record.when === null || record.due !== toTimestamp(record.when))
      return;
    this.change(id, { due: Date.now() });
    this.startDuePosts();
  }

  /** Stops a post that is on its way; resolves when nothing is done with it any more. */
  private async halt(id: string): Promise<void> {
    const one = this.running.get(id);
    one?.stop.abort();
    await one?.work;
    await this.comparisons.halt(id);
  }

  async close(): Promise<void> {
    this.ended = true;
    clearTimeout(this.clock);
    await Promise.all([this.comparisons.close(), ...[...this.running.keys()].map((id) => this.halt(id))]);
  }

  /** Writes down what changed of a post, and tells it. */
  change(id: string, change: PostingChange): PostingRecord | null {
    const changed = this.options.records.change(id, change);
    if (changed) this.news.emit('change', changed);
    return changed;
  }

  private begin(record: PostingRecord): void {
    const stop = new AbortController();
    // It is carried once it counts as running: carrying starts other posts that are due.
    const work = Promise.resolve()
      .then(() => this.carry(record, stop.signal))
      .catch((error: unknown) => this.afterFailure(record.id, error, stop.signal))
      .catch((error: unknown) => this.rest(error))
      .finally(() => {
        this.running.delete(record.id);
        this.startDuePosts();
      });
    this.running.set(record.id, { work, stop, account: record.account, processingSince: null });
  }

  private async carry({ id }: PostingRecord, signal: AbortSignal): Promise<void> {
    if (this.now(id).recalled) return this.options.recall(this.now(id));
    if (this.now(id).outletId === null) {
      this.change(id, { state: 'sending', wait: null, hold: null });
      await this.send(id, signal);
    }
    signal.throwIfAborted();
    const { outletId, when, ahead } = this.now(id);
    const isLater = when !== null && toTimestamp(when) > Date.now();
    if (outletId === null)
      return void this.change(id, { state: 'waiting', due: when === null ? Date.now() : toTimestamp(when) });
    this.change(id, { state: 'processing', ahead: false, wait: null, hold: null });
    const own = this.running.get(id);
    if (own) own.processingSince = Date.now();
    this.startDuePosts();
    const found = await this.followed(id, signal);
    if (found.state === 'up' && isLater) {
      this.change(id, { state: 'waiting', ahead: true, share: 1, due: toTimestamp(when), tries: 0 });
    } else if (found.state === 'up') {
      const upAt = ahead && when !== null ? toTimestamp(when) : Date.now();
      const up = this.change(id, { state: 'up', page: found.page, share: 1, upAt, reasons: [] });
      if (up) this.comparisons.add(up);
    } else if (found.state === 'refused') {
      this.change(id, { state: 'refused', reasons: found.reasons, outletId: null });
    } else {
      this.change(id, { state: 'failed', reasons: [found.reason], outletId: null });
    }
  }

  /** Uploads what is missing of its file, and posts it; before its time only where the outlet keeps that itself. */
  private async send(id: string, signal: AbortSignal): Promise<void> {
    const { door, speaker } = this.options;
    const { upload, bytes, sha256 } = this.now(id);
    const file = door.getFile(upload);
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
    await speaker.as(this.now(id), async (way, token) => {
      const record = this.now(id);
      const abilities = await way.abilities();
      const { words } = record;
      if (words.audience === 'private' && !abilities.drafts.includes(words.placement))
        throw new OutletClientError('bad-request', 'nothing can be private there, so choose who may see it');
      const moment = record.when && toTimestamp(record.when);
      if (!abilities.schedule && moment !== null && moment > Date.now()) return;
      // The answer may be lost, and the post be there all the same.
      this.change(id, { unansweredKey: `${id}-${record.round}` });
      await this.postUnderKey(way, token, id, this.toForm(record, abilities));
    });
  }

  /** Posts under the key that is noted; what the outlet says of it is noted instead. */
  private async postUnderKey(
    way: OutletConnection,
    token: string,
    id: string,
    form: PostForm,
  ): Promise<void> {
    try {
      const posted = await way.post(token, this.now(id).unansweredKey ?? '', form);
      this.change(id, { outletId: posted.id, unansweredKey: null });
    } catch (error) {
      if (error instanceof OutletClientError && REFUSALS.has(error.code))
        this.change(id, { unansweredKey: null });
      throw error;
    }
  }

  /**
   * Learns what the outlet calls a post whose answer was lost, by asking under its key once more. Where that may be, it
   * asks for a private one first: what never arrived then comes into being where nobody sees it, and what did is told.
   * @throws OutletClientError, AccountError where that cannot be known now.
   */
  async resolveUnanswered(id: string): Promise<void> {
    const record = this.now(id);
    if (record.unansweredKey === null) return;
    await this.options.speaker.as(record, async (way, token) => {
      const abilities = await way.abilities();
      const form = this.toForm(record, abilities);
      const isPrivate = abilities.drafts.includes(form.placement);
      const forms = isPrivate ? [{ ...form, audience: 'private' as const }, form] : [form];
      for (const [n, one] of forms.entries()) {
        try {
          return await this.postUnderKey(way, token, id, one);
        } catch (error) {
          if (!(error instanceof OutletClientError)) throw error;
          if (error.code === 'key-used' && n + 1 < forms.length) continue;
          // It was not taken, and is not there.
          if (REFUSALS.has(error.code)) return;
          throw error;
        }
      }
    });
  }

  /** Makes the form that an outlet is sent. Its time stays in it once that has gone by: what is asked again is the same. */
  private toForm({ id, words, when, outletUpload }: PostingRecord, abilities: Abilities): PostForm {
    const publishAt = abilities.schedule && when !== null ? new Date(toTimestamp(when)).toISOString() : null;
    const cover = this.options.records.findCover(id);
    return { ...fitToAbilities({ ...words, cover }, abilities), upload: outletUpload ?? '', publishAt };
  }

  /** Asks the outlet until it is done with a post. */
  private async followed(
    id: string,
    signal: AbortSignal,
  ): Promise<Exclude<OutletPost, { state: 'processing' }>> {
    const since = Date.now();
    for (let pause = ASK_FIRST; ; pause *= 1.5) {
      pause = Math.min(Date.now() - since < ORDER_PATIENCE_MS ? ASK_MOST : ASK_SLOW, pause);
      const record = this.now(id);
      const found = await this.options.speaker.as(record, (way, token) =>
        way.stateOf(token, record.outletId ?? ''),
      );
      if (found.state !== 'processing') return found;
      if (found.share !== record.share) this.change(id, { share: found.share });
      await wait(pause, undefined, { signal });
    }
  }

  private now(id: string): PostingRecord {
    const record = this.options.records.find(id);
    if (!record) throw new DOMException('the post was called back', 'AbortError');
    return record;
  }

  /** Decides what becomes of a post whose attempt failed. */
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

  private hold(id: string, hold: DispatchedPost['hold']): void {
    this.change(id, { state: 'held', hold, wait: null });
  }

  private later({ id, tries, madeAt, when }: PostingRecord, { code, retryAfter }: OutletClientError): void {
    const failed = tries + 1;
    if (Date.now() - (when === null ? madeAt : toTimestamp(when)) > PATIENCE)
      return void this.change(id, {
        state: 'failed',
        reasons: ['The outlet could not be reached for a day.'],
      });
    const until = Date.now() + 1000 * waitBefore(failed, retryAfter, Math.random());
    const why = WAITS.find((one) => one === code) ?? 'answer';
    this.change(id, { state: 'waiting', tries: failed, due: until, wait: { why, until } });
  }
}

/** Answers by which an outlet says for good that it did not take a post. */
const REFUSALS: ReadonlySet<OutletClientError['code']> = new Set([
  ...(['bad-request', 'no-placement', 'no-upload', 'partial-upload', 'no-post'] as const),
]);

const isMissing = (error: unknown): boolean => (error as NodeJS.ErrnoException).code === 'ENOENT';
