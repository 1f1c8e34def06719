import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { parseRandomId } from '../../src/core/figures/random-id';
import {
  type Abilities,
  abilitiesSchema,
  CONTRACT,
  type OutletPost,
} from '../../src/core/outlets/outlet-api';
import { type PostForm, postWordsSchema } from '../../src/core/outlets/post-form';
import type { PostOrder } from '../../src/core/posting/post-order';
import { toTimestamp, toWhen } from '../../src/core/posting/when';
import { soakFigure, trials } from '../../tests/soak';
import { openDatabase } from '../store/database';
import { Dispatcher, type DispatchOptions } from './dispatcher';
import { OutletClientError, type OutletConnection } from './outlet-connection';
import { PostingRecords } from './posting-records';

const COUNT = trials(200, 1000);
const ACCOUNTS = ['a', 'b', 'c', 'd'].map((letter) => parseRandomId(letter.repeat(32)));
const folder = mkdtempSync(path.join(tmpdir(), 'dispatch-'));
const file = path.join(folder, 'file');
writeFileSync(file, 'a file');
const words = postWordsSchema.parse({
  ...{ placement: 'short', title: 'Kites', description: '', tags: [], audience: 'private' },
});

const ABLE = abilitiesSchema.parse({
  ...{ contract: CONTRACT, outlet: 'verrow', name: 'Verrow', issuer: 'http://127.0.0.1/', mostBytes: 1e6 },
  ...{ placements: ['short'], covers: true, captions: true, permissions: true, content: true },
  ...{ collections: true, categories: [], longVideos: false, viewed: false },
  ...{ drafts: ['short'], schedule: false, cards: false },
});

/** An outlet that takes all at once, and notes what it took. */
function outletOf(
  taken: { account: string; key: string; publishAt: string | null }[],
  before: (account: string) => void,
  able: Abilities = ABLE,
) {
  const up = (id: string): OutletPost => ({
    id,
    state: 'up',
    page: `/${id}`,
    audience: 'private',
    viewed: null,
  });
  const way = (account: string): Partial<OutletConnection> => ({
    upload: (_token, _shipment, news) => {
      before(account);
      news.began('http://127.0.0.1/upload');
      return Promise.resolve('upload');
    },
    post: (_token, key: string, { publishAt }: PostForm) => {
      taken.push({ account, key, publishAt });
      return Promise.resolve(up(key));
    },
    abilities: () => Promise.resolve(able),
    stateOf: (_token, id) => Promise.resolve(up(id)),
  });
  return {
    as: <T>({ account }: { account: string }, act: (way: OutletConnection, token: string) => Promise<T>) =>
      act(way(account) as OutletConnection, 'token'),
  };
}

function dispatcherOf(records: PostingRecords, speaker: object): Dispatcher {
  const door: Pick<DispatchOptions['door'], 'getFile'> = { getFile: () => file };
  return new Dispatcher({
    records,
    speaker,
    door,
    compare: () => Promise.resolve(),
  } as unknown as DispatchOptions);
}

const orderOf = (n: number, when: PostOrder['when']): PostOrder => ({
  ...{
    id: parseRandomId(n.toString(16).padStart(32, '0')),
    upload: parseRandomId('f'.repeat(32)),
    fileName: `${n}.mp4`,
    outlet: 'verrow',
  },
  ...{ account: ACCOUNTS[n % ACCOUNTS.length]!, words, when },
});

/** Waits until all posts stand somewhere. */
async function allCome(records: PostingRecords, state: 'up'): Promise<void> {
  while (records.in(state).length < COUNT) await new Promise((resolve) => setTimeout(resolve, 100));
}

describe(`${COUNT} posts that are due in one minute`, () => {
  it('are all sent once, in order for each account, also past one that waits', async () => {
    const database = openDatabase(mkdtempSync(path.join(tmpdir(), 'thousand-')));
    const records = new PostingRecords(database);
    const minute = toWhen(Date.now(), 'UTC');
    for (let n = 0; n < COUNT; n++) records.add(orderOf(n, minute), 'visitor', { bytes: 6 });
    const taken: { account: string; key: string; publishAt: string | null }[] = [];
    let failures = 3;
    const speaker = outletOf(taken, () => {
      if (failures-- > 0) throw new OutletClientError('busy', 'later', 0.05);
    });
    const dispatcher = dispatcherOf(records, speaker);
    dispatcher.start();
    await allCome(records, 'up');
    await dispatcher.close();
    expect(new Set(taken.map(({ key }) => key)).size).toBe(COUNT);
    expect(taken).toHaveLength(COUNT);
    for (const account of ACCOUNTS) {
      const numbers = taken
        .filter((one) => one.account === account)
        .map(({ key }) => parseInt(key.slice(0, 32), 16));
      // Those that were told to wait come when they may; all others keep their order.
      const late = numbers.filter((number, n) => n > 0 && number < Math.max(...numbers.slice(0, n)));
      expect(late.length).toBeLessThanOrEqual(3);
    }
    database.close();
    soakFigure('posts due in one minute', `${COUNT} to four accounts: each sent once, in order by account`);
  }, 600_000);
});

describe('posts that their outlet does not come to an end with', () => {
  it('stand in the way of no other account', async () => {
    const database = openDatabase(mkdtempSync(path.join(tmpdir(), 'processing-')));
    const records = new PostingRecords(database);
    const orders = ['a', 'b', 'c', 'd', 'e'].map((letter, n) => ({
      ...orderOf(n, null),
      account: parseRandomId(letter.repeat(32)),
    }));
    for (const order of orders) records.add(order, 'visitor', { bytes: 6 });
    const outlet = outletOf([], () => undefined);
    const last = orders[4]!;
    const speaker = {
      as: <T>({ account }: { account: string }, act: (way: OutletConnection, token: string) => Promise<T>) =>
        outlet.as({ account }, (way, token) => {
          const stuck = (_token: string, id: string): Promise<OutletPost> =>
            Promise.resolve({ id, state: 'processing', share: 0.5 });
          return act(account === last.account ? way : { ...way, stateOf: stuck }, token);
        }),
    };
    const dispatcher = dispatcherOf(records, speaker);
    const isUp = new Promise<void>((resolve) =>
      dispatcher.news.on('change', ({ id, state }) => {
        if (id === last.id && state === 'up') resolve();
      }),
    );
    dispatcher.start();
    await isUp;
    expect(records.in('processing')).toHaveLength(4);
    await dispatcher.close();
    database.close();
  });
});

describe('a database that cannot be used', () => {
  it('for a moment strands no post, and is not asked without end', async () => {
    const data = mkdtempSync(path.join(tmpdir(), 'locked-'));
    const database = openDatabase(data);
    const records = new PostingRecords(database);
    const taken: Parameters<typeof outletOf>[0] = [];
    const { id } = records.add(orderOf(0, null), 'visitor', { bytes: 6 });
    const change = jest.spyOn(records, 'change');
    jest.spyOn(console, 'error').mockImplementation(() => undefined);
    let isLocked = false;
    const other = openDatabase(data);
    // Somebody else holds it from the moment of the upload on, longer than is waited for it.
    const dispatcher = dispatcherOf(
      records,
      outletOf(taken, () => {
        if (isLocked) return;
        isLocked = true;
        other.exec('begin immediate');
        setTimeout(() => other.exec('commit'), 1500);
      }),
    );
    dispatcher.start();
    await expect(() => records.find(id)?.state === 'up').toBecomeTrue();
    expect(taken).toHaveLength(1);
    expect(change.mock.calls.length).toBeLessThan(40);
    await dispatcher.close();
    other.close();
    database.close();
    jest.restoreAllMocks();
  });
});

describe('a machine that slept', () => {
  it('leaves what was due meanwhile to its person, as a server does that was off', () => {
    const database = openDatabase(mkdtempSync(path.join(tmpdir(), 'slept-')));
    const records = new PostingRecords(database);
    const hour = 3600_000;
    const began = Date.now();
    const now = jest.spyOn(Date, 'now').mockReturnValue(began);
    const [soon, later] = [1, 5].map((hours) => toWhen(began + hours * hour, 'UTC'));
    for (const [n, when] of [soon, later].entries())
      records.add(orderOf(n, when ?? null), 'visitor', { bytes: 6 });
    const dispatcher = dispatcherOf(
      records,
      outletOf([], () => undefined),
    );
    dispatcher.start();
    expect(records.in('waiting')).toHaveLength(2);
    now.mockReturnValue(began + 3 * hour);
    dispatcher.startDuePosts();
    expect(records.in('missed').map(({ when }) => when)).toEqual([soon]);
    expect(records.in('waiting').map(({ when }) => when)).toEqual([later]);
    now.mockRestore();
    void dispatcher.close();
    database.close();
  });
});

describe('a post', () => {
  /** Carries one, and gives it as it stands once nothing is done with it any more. */
  async function carried(able: Abilities, when: PostOrder['when'] = null, ahead = false) {
    const database = openDatabase(mkdtempSync(path.join(tmpdir(), 'one-')));
    const records = new PostingRecords(database);
    const taken: Parameters<typeof outletOf>[0] = [];
    const { id } = records.add(orderOf(0, when), 'visitor', { bytes: 6 });
    const dispatcher = dispatcherOf(
      records,
      outletOf(taken, () => undefined, able),
    );
    const settled = new Promise<void>((resolve) =>
      dispatcher.news.on('change', ({ state, due }) => {
        const isLater = state === 'waiting' && due > Date.now();
        if (isLater || !['waiting', 'sending', 'processing'].includes(state)) resolve();
      }),
    );
    dispatcher.start();
    if (ahead) dispatcher.beginAhead(id);
    await settled;
    await dispatcher.close();
    const record = records.find(id);
    database.close();
    return { record, taken };
  }
  const tomorrow = toWhen(Date.now() + 86_400_000, 'UTC');

  it('that is to be private goes to no outlet where nothing can be', async () => {
    const { record, taken } = await carried({ ...ABLE, drafts: ['wide'] });
    expect(taken).toEqual([]);
    expect(record?.state).toBe('failed');
    expect(record?.reasons).toEqual([
      'The outlet did not take it: nothing can be private there, so choose who may see it.',
    ]);
  });

  it('for later is handed over with its time where the outlet keeps that', async () => {
    const { record, taken } = await carried({ ...ABLE, schedule: true }, tomorrow, true);
    const publishAt = new Date(toTimestamp(tomorrow)).toISOString();
    expect(taken).toMatchObject([{ publishAt }]);
    expect(record).toMatchObject({ state: 'waiting', ahead: true, due: toTimestamp(tomorrow), upAt: null });
  });

  it('for later stays here where the outlet does not keep its time after all', async () => {
    const { record, taken } = await carried({ ...ABLE, schedule: false }, tomorrow, true);
    expect(taken).toEqual([]);
    expect(record).toMatchObject({
      state: 'waiting',
      ahead: false,
      due: toTimestamp(tomorrow),
      outletId: null,
    });
  });
});
