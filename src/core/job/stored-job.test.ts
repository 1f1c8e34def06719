import fc from 'fast-check';
import { plainFraming } from '../framing/framing';
import { applyCommand, type Command } from './commands/commands';
import { computeDelta } from './delta';
import { type Entry, createMetadataChange, toHead, headSchema, type JobFile, replayEntry } from './document';
import { computeChange, EMPTY_HISTORY, MAX_STEPS, recordStep, type EditWithHistory } from './history';
import { activeClip, type Job, mainMaster } from './job';
import { computeSignature } from './signature';
import { readOldJob, readStoredJob, storedJob } from './stored-job';
import { createFramingCommand, keep, testJob, TEST_MASTER, testShot } from './test-job';

const job = testJob();
const file: JobFile = { job, history: EMPTY_HISTORY, revision: 0 };
const at = '2026-11-26T10:00:00.000Z';

/** A file after a command, with the entry that was stored for it. */
function step(from: JobFile, command: Command): { file: JobFile; entry: Entry } {
  const change = computeChange(from.job.edit, command);
  if (!change) throw new Error('nothing changed');
  const { after: _after, ...stored } = change;
  const entry: Entry = { revision: from.revision + 1, at, done: { op: 'step', ...stored } };
  return { file: replayEntry(from, entry), entry };
}

describe('a stored job', () => {
  it('is its document and the changes since, in order', () => {
    const stored = storedJob(file);
    const first = step(file, keep(10, 900));
    const second = step(first.file, createFramingCommand({ zoom: 2 }));
    const undo: Entry = { revision: 3, at, done: { op: 'undo' } };
    const third = replayEntry(second.file, undo);
    const facts: Entry = { revision: 4, at, done: createMetadataChange(third.job, { title: 'Renamed' })! };
    const now = replayEntry(third, facts);
    const entries = [first.entry, second.entry, undo, facts].map((record) => JSON.stringify(record));
    expect(readStoredJob({ ...stored, entries })).toEqual({ ok: true, file: now });
    expect(now.job.title).toBe('Renamed');
    expect(activeClip(now.job.edit).cut[0]?.in).toBe(10);
    expect(now.history).toMatchObject({
      past: [{ command: 'set-cut/trim' }],
      future: [{ command: 'set-framings/move' }],
    });
  });

  it('does not open where a change is missing or damaged', () => {
    const first = step(file, keep(10, 900));
    const second = step(first.file, keep(20, 900));
    const read = (...entries: string[]) => readStoredJob({ ...storedJob(file), entries });
    expect(read(JSON.stringify(second.entry))).toMatchObject({ ok: false, problem: 'damaged' });
    expect(read(JSON.stringify(first.entry).slice(0, 60))).toMatchObject({ ok: false, problem: 'damaged' });
  });

  it('of a newer version is told apart from a damaged one', () => {
    const { document, ...rest } = storedJob(file);
    const newer = document.replace(/"schemaVersion":\d+/, '"schemaVersion":99');
    expect(readStoredJob({ ...rest, document: newer })).toEqual({
      ok: false,
      problem: 'newer',
      detail: 'version 99',
    });
    expect(readStoredJob({ ...rest, document: document.slice(0, 200) })).toMatchObject({
      problem: 'damaged',
    });
  });

  it('with a lost or damaged history opens without it', () => {
    const stored = storedJob(step(file, keep(10, 900)).file);
    for (const history of [null, '{"past":7}', '{"revision":9,"history":{"past":[],"future":[]}}']) {
      expect(readStoredJob({ ...stored, history })).toMatchObject({
        ok: true,
        file: { history: EMPTY_HISTORY },
      });
    }
  });

  it('leaves out a record that cannot be read', () => {
    expect(readStoredJob({ ...storedJob(file), exports: ['{"id":'] })).toMatchObject({ ok: true });
  });

  it('never throws, whatever stands in storage', () => {
    const { document } = storedJob(file);
    const any = fc.oneof(
      fc.string(),
      fc.json(),
      fc.nat(document.length).map((end) => document.slice(0, end)),
    );
    fc.assert(
      fc.property(any, any, (first, second) => {
        expect(readStoredJob({ ...storedJob(file), document: first, entries: [second] })).toHaveProperty(
          'ok',
        );
        expect(readOldJob(first)).toHaveProperty('ok');
      }),
    );
  });

  it('has a head that says what the list shows', () => {
    expect(headSchema.parse(toHead(file))).toMatchObject({
      id: 'job-1',
      clips: 1,
      revision: 0,
      poster: { frame: 196 },
    });
  });
});

describe('what a job names', () => {
  const shots = [testShot('a', 0, 500), testShot('b', 500, 984)];
  const faultOf = (change: Partial<Job['edit']>, more: Partial<Job> = {}) => {
    const read = readStoredJob(
      storedJob({ ...file, job: { ...job, ...more, edit: { ...job.edit, ...change } } }),
    );
    return read.ok ? null : read.detail;
  };
  const clip = activeClip(job.edit);

  it('holds together', () => expect(faultOf({ shots })).toBeNull());

  it.each<[string, Partial<Job['edit']>, RegExp]>([
    [
      'a gap between shots',
      { shots: [testShot('a', 0, 400), testShot('b', 500, 984)] },
      /b begins at 500, not at 400/,
    ],
    [
      'an overlap of shots',
      { shots: [testShot('a', 0, 600), testShot('b', 500, 984)] },
      /b begins at 500, not at 600/,
    ],
    ['shots past the master', { shots: [testShot('a', 0, 2000)] }, /end at 2000 of 984/],
    ['a shot of no master', { shots: [{ ...testShot('a', 0, 984), master: 'gone' }] }, /names gone/],
    ['a shot twice', { shots: [testShot('a', 0, 500), testShot('a', 500, 984)] }, /shot a is there twice/],
    [
      'a range past the master',
      { clips: [{ ...clip, cut: [{ master: TEST_MASTER, in: 0, out: 985 }] }] },
      /ends at 985 of 984/,
    ],
    [
      'a range of no master',
      { clips: [{ ...clip, cut: [{ master: 'gone', in: 0, out: 9 }] }] },
      /names gone/,
    ],
    ['a clip twice', { clips: [clip, clip] }, /clip clip-1 is there twice/],
    ['work on no clip', { clip: 'gone' }, /names gone/],
    ['work on no canvas', { clips: [{ ...clip, canvas: 'gone' }] }, /names gone/],
    ['a framing of no shot', { framings: [plainFraming('gone', 'main', 0)] }, /a framing names gone/],
    ['a tick of no shot', { ticks: { gone: 'x' } }, /a tick names gone/],
    [
      'repairs of no master',
      { repairs: { gone: { ...job.edit.repairs[''] } as never } },
      /repairs|names gone/,
    ],
  ])('is checked as it loads: %s', (_, change, reason) => {
    expect(faultOf(change)).toMatch(reason);
  });

  it('is checked of masters too', () => {
    expect(faultOf({}, { masters: [mainMaster(job), mainMaster(job)] })).toMatch(/master a+ is there twice/);
  });
});

describe('a history', () => {
  const many = (count: number, command: (n: number) => Command): EditWithHistory =>
    Array.from({ length: count }, (_, n) => command(n)).reduce<EditWithHistory>(
      (now, command) => recordStep(now, computeChange(now.edit, command)!),
      { edit: { ...job.edit, shots: [] }, history: EMPTY_HISTORY },
    );

  it('keeps so many steps, and holds of each only what it changed', () => {
    const now = many(300, (n) => keep(n + 1, 900));
    expect(now.history.past).toHaveLength(MAX_STEPS);
    expect(JSON.stringify(now.history).length).toBeLessThan(60_000);
  });

  it('lets the oldest go where its steps are large', () => {
    const words = (n: number): Command => ({
      type: 'set-words',
      words: { title: 'x', description: String(n).repeat(4000), tags: [] },
    });
    const now = many(100, words);
    expect(now.history.past.length).toBeLessThan(100);
    expect(now.history.past.length).toBeGreaterThan(10);
    expect(JSON.stringify(now.history).length).toBeLessThan(500_000);
  });

  it('says of a change what it is: an element moved, put in or taken out is not the whole list again', () => {
    const shots = Array.from({ length: 200 }, (_, n) => testShot(`s${n}`, n * 4, n * 4 + 4));
    const edit = { ...job.edit, shots };
    const without = { ...edit, shots: shots.filter((_, n) => n !== 3) };
    expect(JSON.stringify(computeDelta(edit, without)).length).toBeLessThan(400);
    const disordered = { ...edit, shots: [...shots.slice(1), shots[0]!] };
    expect(JSON.stringify(computeDelta(edit, disordered)).length).toBeLessThan(100);
    expect(computeDelta(edit, applyCommand(edit, { type: 'set-audience', audience: 'private' }))).toBeNull();
  });
});

describe('a job of the third version', () => {
  const { gone: _gone, ...edit } = job.edit;
  const clip = activeClip(job.edit);
  const { soundTrack: _track, ...master } = mainMaster(job);
  const { offered: _offered, ...rest } = job;
  const shots = [testShot('a', 0, 500), testShot('b', 500, 984)];
  const old = {
    ...rest,
    schemaVersion: 3,
    masters: [master],
    edit: {
      ...edit,
      shots,
      framings: [plainFraming('a', 'main', 0), plainFraming('lost', 'main', 0)],
      clips: [{ ...clip, overrides: ['tag'], videoBits: null }],
    },
  };
  const pack = (first: number) => ({
    ...clip,
    overrides: ['tag'],
    videoBits: null,
    cut: [{ master: TEST_MASTER, in: first, out: 984 }],
  });
  const stepOf = (clips: number) => ({
    name: 'trim',
    shots: 0,
    framings: [0],
    repairs: 0,
    ticks: 0,
    clips: [clips],
    clip: 'clip-1',
  });
  const history = {
    shots: [shots],
    framings: [plainFraming('a', 'main', 0)],
    repairs: [{}],
    ticks: [{}],
    clips: [pack(30), pack(20), pack(5), pack(1)],
    past: [stepOf(0), stepOf(1)],
    future: [stepOf(3), stepOf(2)],
  };

  it('opens with its overrides on every canvas, without framings of shots that are gone', () => {
    const read = readOldJob(JSON.stringify({ job: old, history }));
    if (!read.ok) throw new Error(read.detail);
    const { job: now } = read.file;
    expect(now.edit.framings.map((framing) => framing.shot)).toEqual(['a']);
    expect(activeClip(now.edit).overrides).toMatchObject([{ rule: 'tag', canvas: 'canvas-1' }]);
    expect(now.offered).toEqual([TEST_MASTER]);
    expect(mainMaster(now)).toMatchObject({ soundTrack: 0, audio: { decodable: true } });
  });

  it('keeps its undo', () => {
    const read = readOldJob(JSON.stringify({ job: old, history }));
    if (!read.ok) throw new Error(read.detail);
    const { past, future } = read.file.history;
    expect([past.length, future.length]).toEqual([2, 2]);
    const entry = (revision: number, op: 'undo' | 'redo'): Entry => ({ revision, at, done: { op } });
    const ins = (file: JobFile) => activeClip(file.job.edit).cut[0]?.in;
    const back = replayEntry(read.file, entry(1, 'undo'));
    expect(ins(back)).toBe(20);
    expect(ins(replayEntry(back, entry(2, 'undo')))).toBe(30);
    expect(ins(replayEntry(read.file, entry(1, 'redo')))).toBe(5);
  });
});

describe('a job of the fourth version', () => {
  const clip = { ...activeClip(job.edit), videoBits: null as number | null };
  const editOf = (videoBits: number | null, title = 'x') => ({
    ...job.edit,
    clips: [{ ...clip, videoBits, words: { ...clip.words, title } }],
  });
  const was = { ...job, schemaVersion: 4, edit: editOf(8_000_000) };
  const between = (a: unknown, b: unknown) => computeDelta(a, b)!;
  const history = {
    past: [{ command: 'set-video-bits', delta: between(editOf(null), editOf(8_000_000)) }],
    future: [{ command: 'set-words', delta: between(editOf(8_000_000), editOf(8_000_000, 'y')) }],
  };
  const record = (signature: string) =>
    JSON.stringify({
      ...{ id: signature, clip: 'clip-1', canvas: 'canvas-1', dye: 0, placement: null, signature },
      ...{ width: 1080, height: 1920, fileName: 'x.mp4', startedAt: at, state: 'done', videoBits: 1 },
      ...{ error: null, bytes: 1, tookSeconds: 1, proof: null },
    });
  const stored = {
    document: JSON.stringify({ revision: 3, job: { ...was, exports: undefined, posts: undefined } }),
    history: JSON.stringify({ revision: 3, history }),
    entries: [],
    exports: [record(computeSignature(was.edit, 8_000_000)), record('older')],
    posts: [],
  };
  const opened = (entries: string[] = []) => {
    const read = readStoredJob({ ...stored, entries });
    if (!read.ok) throw new Error(read.detail);
    return read.file;
  };
  const rateOf = (file: JobFile) => activeClip(file.job.edit).canvases[0]?.encoding?.rate ?? null;

  it('gives its bit rate to each canvas, and what was made by it stays current', () => {
    const now = opened();
    expect(rateOf(now)).toEqual({ kind: 'variable', bits: 8_000_000, most: null });
    const [current, older] = now.job.exports;
    expect([current?.signature, older?.signature]).toEqual([computeSignature(now.job.edit), 'older']);
  });

  it('keeps its undo, in the form of today', () => {
    const entry = (revision: number, op: 'undo' | 'redo'): Entry => ({ revision, at, done: { op } });
    const back = replayEntry(opened(), entry(4, 'undo'));
    expect(rateOf(back)).toBeNull();
    const again = replayEntry(replayEntry(back, entry(5, 'redo')), entry(6, 'redo'));
    expect(rateOf(again)).toMatchObject({ bits: 8_000_000 });
    expect(activeClip(again.job.edit).words.title).toBe('y');
  });

  it('takes the changes that were made since, in the form of then', () => {
    const delta = between(editOf(8_000_000), editOf(3_000_000));
    const done = { op: 'step', command: 'set-video-bits', delta };
    const now = opened([JSON.stringify({ revision: 4, at, done })]);
    expect(rateOf(now)).toMatchObject({ bits: 3_000_000 });
    expect(now.history.past).toHaveLength(2);
    expect(now.revision).toBe(4);
  });
});
