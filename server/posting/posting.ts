import { randomBytes } from 'node:crypto';
import { mkdirSync } from 'node:fs';
import { rm, stat } from 'node:fs/promises';
import path from 'node:path';
import type { Express } from 'express';
import type { Audience } from '../../src/core/outlets/audience';
import {
  type PostEdit,
  type PostOrder,
  POSTING_UPLOADS,
  isUnderWay,
} from '../../src/core/posting/post-order';
import { toTimestamp } from '../../src/core/posting/when';
import { AccountRecords } from '../accounts/account-records';
import { Accounts } from '../accounts/accounts';
import { SignInRecords } from '../accounts/sign-in-records';
import { sweepGrants } from '../outlets/stand-in/authority/grant-store';
import type { OutletDirectory } from '../outlets/directory';
import { UploadEndpoint } from '../uploads/upload-endpoint';
import type { Workshop } from '../workshop';
import { compareFilms, extractPicture } from './compare';
import { Dispatcher } from './dispatcher';
import { type PostingRecord, PostingRecords } from './posting-records';
import { AuthorizedClient } from './authorized-client';

/** Largest file that is kept for a post, in bytes. */
const MAX_FILE = 16e9;

/** A post whose time is nearer than this is not worth handing over ahead of it, in milliseconds. */
const AHEAD = 60_000;

/** An outlet that could not be asked to take a post back is asked again after so long, in milliseconds. */
const AGAIN_MS = 5000;

/** Nothing of a post is at its outlet. */
const NOT_SENT = {
  ...{ address: null, outletUpload: null, sent: 0, outletId: null },
  ...{ unansweredKey: null, ahead: false },
} as const;

/** Why something is not done with a post. */
export type PostingProblem = 'no-upload' | 'no-account' | 'past' | 'under-way' | 'not-up';

/**
 * Posts of a browser through this server: kept here until their time, sent, followed, changed and taken down.
 */
export class PostService {
  readonly accounts: Accounts;
  readonly records: PostingRecords;
  readonly door: UploadEndpoint;
  private begun: { speaker: AuthorizedClient; dispatcher: Dispatcher } | null = null;
  private readonly folder: string;

  constructor(
    app: Express,
    private readonly workshop: Workshop,
    readonly directory: OutletDirectory,
  ) {
    const { database, secrets, data } = workshop;
    this.folder = path.join(data, 'posting');
    mkdirSync(this.folder, { recursive: true });
    this.records = new PostingRecords(database);
    this.door = UploadEndpoint.add(app, database, {
      name: 'posting',
      address: POSTING_UPLOADS,
      folder: path.join(data, 'posting-uploads'),
      mostBytes: MAX_FILE,
    });
    const accounts = new AccountRecords(database, secrets);
    this.accounts = new Accounts(accounts, new SignInRecords(database), directory);
  }

  /** Begins to carry posts. @param origin that this server can be reached at by itself. */
  start(origin: string): void {
    const { records, door } = this;
    const speaker = new AuthorizedClient(this.accounts, this.directory, origin);
    const dispatcher = new Dispatcher({
      records,
      speaker,
      door,
      compare: (record, signal) => this.compare(record, signal),
      recall: (record) => this.dropTakenBack(record),
    });
    this.begun = { speaker, dispatcher };
    dispatcher.start();
  }

  get dispatcher(): Dispatcher {
    return this.working.dispatcher;
  }

  get speaker(): AuthorizedClient {
    return this.working.speaker;
  }

  async close(): Promise<void> {
    await this.begun?.dispatcher.close();
  }

  /** Takes an order; the same again is the same post. */
  async order(order: PostOrder, visitor: string): Promise<PostingRecord | PostingProblem> {
    const known = this.records.find(order.id);
    if (known) return known.visitor === visitor ? known : 'no-upload';
    if ((await this.door.state(order.upload)) !== 'whole') return 'no-upload';
    if (this.accounts.find(order.account, visitor)?.outlet !== order.outlet) return 'no-account';
    if (order.when !== null && toTimestamp(order.when) < Date.now() - 60_000) return 'past';
    const { size } = await stat(this.door.getFile(order.upload));
    const record = this.records.find(order.id) ?? this.records.add(order, visitor, { bytes: size });
    this.dispatcher.news.emit('change', record);
    this.dispatcher.startDuePosts();
    void this.sendAhead(record);
    return record;
  }

  /** Changes a post that waits for its time or its person, or asks once more for one that came to nothing. */
  again(record: PostingRecord, edit: PostEdit): Promise<PostingRecord | PostingProblem> {
    return this.dispatcher.withStopped(record.id, () => this.changeStopped(record, edit));
  }

  private async changeStopped(
    record: PostingRecord,
    edit: PostEdit,
  ): Promise<PostingRecord | PostingProblem> {
    const { id, visitor } = record;
    const account = edit.account ?? record.account;
    if (this.accounts.find(account, visitor)?.outlet !== record.outlet) return 'no-account';
    if (edit.when && toTimestamp(edit.when) < Date.now() - 60_000) return 'past';
    const now = this.records.find(id);
    if (!now || now.recalled || (now.outletId !== null && !now.ahead) || now.state === 'up')
      return 'under-way';
    const isThere = now.ahead || now.unansweredKey !== null;
    if (isThere) await this.takeBack(now);
    const when = edit.when === undefined ? now.when : edit.when;
    const isOver = when !== null && toTimestamp(when) < Date.now();
    const changed = this.dispatcher.change(id, {
      ...(edit.words && { words: edit.words, cover: edit.words.cover }),
      ...{
        account,
        when: isOver ? null : when,
        state: 'waiting',
        hold: null,
        wait: null,
        reasons: [],
        tries: 0,
      },
      // An outlet may remember a key for what it refused.
      round: now.round + 1,
      // What went up for another account is that one's, and what was posted has its upload.
      ...(account === now.account && !isThere ? { outletId: null } : NOT_SENT),
      due: when === null || isOver ? Date.now() : toTimestamp(when),
    });
    if (!changed) return 'under-way';
    this.dispatcher.startDuePosts();
    void this.sendAhead(changed);
    return changed;
  }

  /** Calls a post back that is not up yet, or forgets one that is done with. */
  forget({ id }: PostingRecord): Promise<void> {
    return this.dispatcher.withStopped(id, async () => {
      const now = this.records.find(id);
      if (!now) return;
      try {
        await this.dropTakenBack(now);
      } catch (error) {
        // The outlet may have it: it is taken back as soon as the outlet answers.
        this.dispatcher.change(id, {
          recalled: true,
          state: 'waiting',
          tries: 1,
          due: Date.now() + AGAIN_MS,
        });
        throw error;
      }
    });
  }

  private async dropTakenBack(record: PostingRecord): Promise<void> {
    if (isUnderWay(record)) await this.takeBack(record);
    this.records.forget(record.id);
    await rm(this.getViewed(record.id), { force: true });
  }

  async setAudience(record: PostingRecord, audience: Audience): Promise<PostingRecord | PostingProblem> {
    const { id, outletId, words } = record;
    if (record.state !== 'up' || outletId === null) return 'not-up';
    await this.speaker.as(record, (way, token) => way.setAudience(token, outletId, audience));
    return this.dispatcher.change(id, { words: { ...words, audience } }) ?? 'not-up';
  }

  async takeDown(record: PostingRecord): Promise<PostingRecord | PostingProblem> {
    const { id, outletId } = record;
    if (record.state !== 'up' || outletId === null) return 'not-up';
    await this.speaker.as(record, (way, token) => way.takeDown(token, outletId));
    return this.dispatcher.change(id, { state: 'down', page: null }) ?? 'not-up';
  }

  /**
   * Reads one frame as it was sent, or as a viewer gets it, at the size that was sent; null where there is
   * none.
   */
  async picture(record: PostingRecord, kind: 'sent' | 'viewed', frame: number): Promise<string | null> {
    const { id, upload, compared } = record;
    if (!compared || frame >= compared.frames) return null;
    const film = kind === 'sent' ? this.door.getFile(upload) : this.getViewed(id);
    // Two may be asked for at once.
    const to = path.join(this.folder, `${id}.${kind}.${frame}.${randomBytes(8).toString('hex')}.png`);
    const { width, height } = compared;
    const there = await stat(film).catch(() => null);
    if (!there) return null;
    await extractPicture(this.workshop.looks, film, { frame, width, height, to });
    return to;
  }

  /** Holds the posts that wait for an account that is about to be let go, and takes back what its outlet keeps. */
  async holdFor(account: string): Promise<void> {
    for (const { id, state } of this.records.ofAccount(account)) {
      if (state !== 'waiting') continue;
      await this.dispatcher.withStopped(id, async () => {
        const now = this.records.find(id);
        if (now?.state !== 'waiting') return;
        // An outlet that cannot be asked keeps it, and puts it up at its time.
        const isKept = await this.takeBack(now).then(
          () => false,
          () => now.ahead || now.unansweredKey !== null,
        );
        if (!isKept) this.dispatcher.change(id, { ...NOT_SENT, state: 'held', hold: 'gone', wait: null });
      });
    }
  }

  /** Hands a post for later over at once where the outlet keeps its time itself; everywhere else we keep it. */
  private async sendAhead({ id, account, outlet, when }: PostingRecord): Promise<void> {
    const moment = when && toTimestamp(when);
    if (moment === null || moment < Date.now() + AHEAD) return;
    const abilities = await this.speaker
      .as({ account, outlet }, (way) => way.abilities())
      // It cannot be asked now: we keep the time.
      .catch(() => null);
    if (abilities?.schedule) this.dispatcher.beginAhead(id);
  }

  /** Takes back what an outlet has of a post. */
  private async takeBack(record: PostingRecord): Promise<void> {
    await this.dispatcher.resolveUnanswered(record.id);
    const outletId = this.records.find(record.id)?.outletId ?? null;
    if (outletId !== null) await this.speaker.as(record, (way, token) => way.takeDown(token, outletId));
  }

  async sweep(before: number, now = Date.now()): Promise<void> {
    await this.door.sweep(before, (upload) => this.records.needs(upload));
    this.accounts.sweep(now);
    sweepGrants(this.workshop.database, now);
  }

  private getViewed(id: string): string {
    return path.join(this.folder, `${id}.viewed.mp4`);
  }

  private get working() {
    if (!this.begun) throw new Error('nothing is posted before the server listens');
    return this.begun;
  }

  private async compare(record: PostingRecord, signal: AbortSignal): Promise<void> {
    const { id, upload, outletId } = record;
    const isOffered = await this.speaker.as(record, async (way) => (await way.abilities()).viewed);
    if (!isOffered || outletId === null || signal.aborted) return;
    await this.speaker.as(record, (way, token) => way.fetchViewed(token, outletId, this.getViewed(id)));
    const compared = await compareFilms(this.workshop.looks, this.door.getFile(upload), this.getViewed(id));
    if (compared) this.dispatcher.change(id, { compared });
  }
}
