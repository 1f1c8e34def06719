import { testRateChange, keep, testJob, testMaster, TEST_MASTER, testRange, testShot } from '../job/test-job';
import { parseFingerprint } from '../master/fingerprint';
import { WHOLE_RECT, type StoredRect } from '../picture/size';
import { applyCommand, type Command } from '../job/commands/commands';
import { activeClip, type Job } from '../job/job';
import { LOOKED, createPassLookup, testPass } from '../job/test-pass';
import { sureEdges } from '../diagnosis/found-edges';
import { NO_REPAIRS } from '../master/repairs';
import { toSource } from '../master/source';
import type { AnalysisResult } from '../pass/pass';
import { checkJob, listBlockingFindings, isAnalyzed } from './check';
import type { Finding } from './finding';
import { fixCommand } from './fixes';

/** 1920×800 in 1080 lines. */
const SCOPE = { x: 0, y: 140 / 1080, width: 1, height: 800 / 1080 } as StoredRect;
const PILLARS = { x: 240 / 1920, y: 0, width: 1440 / 1920, height: 1 } as StoredRect;
const SLIVER = { x: 0, y: 1 / 1080, width: 1, height: 1079 / 1080 } as StoredRect;
const start = { kind: 'cut', confidence: 1, frames: 0 } as const;

const job = testJob();
const change = (work: Job, command: Command): Job => ({ ...work, edit: applyCommand(work.edit, command) });
const found = (work: Job, pass: AnalysisResult | null): Extract<Finding, { rule: 'bars' }> =>
  checkJob(work, createPassLookup(pass)).find((finding) => finding.rule === 'bars') as never;
const fixed = (work: Job, finding: Finding): Job => change(work, fixCommand(finding.fix!));
const stopped = (work: Job, pass: AnalysisResult) =>
  listBlockingFindings(checkJob(work, createPassLookup(pass)), activeClip(work.edit), 'export').map(
    (finding) => finding.rule,
  );

describe('bars that the master brings', () => {
  it('are not known before the master was looked at, and never passed', () => {
    expect(found(job, null)).toMatchObject({ severity: 'unknown', code: 'unknown' });
    expect(isAnalyzed(job, () => null)).toBe(false);
    expect(isAnalyzed(job, LOOKED.passOf)).toBe(true);
    expect(found(job, testPass())).toMatchObject({ severity: 'pass', code: 'clear' });
  });

  it.each([
    ['letterbox', SCOPE],
    ['pillarbox', PILLARS],
    ['a sliver of one sample', SLIVER],
  ])('stop the export until the found edges are taken: %s', (_, live) => {
    const pass = testPass({ live });
    const finding = found(job, pass);
    expect(finding).toMatchObject({ severity: 'stop', code: 'whole', values: { shots: 1, of: 1, sure: 1 } });
    expect(stopped(job, pass)).toContain('bars');
    const mended = fixed(job, finding);
    expect(found(mended, pass)).toMatchObject({ severity: 'pass', code: 'clear' });
    expect(mended.edit.repairs[TEST_MASTER]?.live).toEqual(live);
  });

  it('that a person said are picture are a note', () => {
    const rates = testRateChange(job.masters[0]!.rate, job.masters[0]!.rate);
    const repairs = { ...NO_REPAIRS, live: WHOLE_RECT };
    const said = change(job, { type: 'set-repairs', master: TEST_MASTER, repairs, rates });
    expect(found(said, testPass({ live: SCOPE }))).toMatchObject({ severity: 'note', code: 'kept' });
  });

  it('of single shots stop where a shot of the clip lacks them, and one tap gives them to it', () => {
    const shots = [testShot('a', 0, 500), testShot('b', 500, 984)];
    const work = { ...job, edit: { ...job.edit, shots } };
    const pass = testPass({
      shots: [
        { frame: 0, start: null, live: null },
        { frame: 500, start, live: SCOPE },
      ],
    });
    const finding = found(work, pass);
    expect(finding).toMatchObject({
      severity: 'stop',
      code: 'shots',
      values: { shots: 1, of: 2 },
      frame: 500,
    });
    const mended = fixed(work, finding);
    expect(mended.edit.shots.map((shot) => shot.live)).toEqual([null, SCOPE]);
    expect(mended.edit.shots.map((shot) => shot.id)).toEqual(['a', 'b']);
    expect(found(mended, pass).severity).toBe('pass');
    // A clip that leaves the shot out has nothing to mend.
    expect(found(change(work, keep(0, 400)), pass).severity).toBe('pass');
    // Neither has it where only the shot's last frame is in it.
    expect(found(change(work, keep(0, 501)), pass).severity).toBe('stop');
  });

  it('of a second master are found and mended too, whatever was said of the first', () => {
    const second = testMaster({ id: 'b'.repeat(12), fingerprint: parseFingerprint('b'.repeat(64)) });
    const both = { ...job, masters: [job.masters[0]!, second] };
    const cut = [testRange(0, 300), { master: second.id, in: 0, out: 300 }];
    const rates = testRateChange(second.rate, second.rate);
    const said = change(change(both, { type: 'set-cut', act: 'add', cut }), {
      type: 'set-repairs',
      master: TEST_MASTER,
      repairs: { ...NO_REPAIRS, live: WHOLE_RECT },
      rates,
    });
    const passOf = (fingerprint: string) =>
      fingerprint === second.fingerprint
        ? testPass({ fingerprint, shots: [{ frame: 0, start: null, live: PILLARS }] })
        : testPass({ live: SCOPE });
    const look = (work: Job) =>
      checkJob(work, { ...LOOKED, passOf }).find((finding) => finding.rule === 'bars')!;
    expect(look(said)).toMatchObject({
      severity: 'stop',
      code: 'shots',
      values: { shots: 1, of: 2, file: second.fileName },
      frame: 300,
    });
    const mended = fixed(said, look(said));
    expect(mended.edit.shots).toMatchObject([{ master: second.id, live: PILLARS }]);
    expect(look(mended)).toMatchObject({ severity: 'note', code: 'kept', values: { shots: 1, of: 2 } });
    expect(isAnalyzed(said, (fingerprint) => (fingerprint === second.fingerprint ? null : testPass()))).toBe(
      false,
    );
  });

  it('are taken by themselves only when they were found for sure, and never twice', () => {
    const source = toSource(job.masters[0]!);
    const taken = (confidence: number, repairs = NO_REPAIRS) =>
      sureEdges(testPass({ live: SCOPE, liveConfidence: confidence }), source, repairs)?.live ?? null;
    expect(taken(1)).toEqual(SCOPE);
    expect(taken(0.7)).toBeNull();
    expect(taken(1, { ...NO_REPAIRS, live: WHOLE_RECT })).toBeNull();
  });
});

describe('combing and pixels that are not square', () => {
  const of = (work: Job, rule: Finding['rule'], pass: AnalysisResult | null) =>
    checkJob(work, createPassLookup(pass)).find((finding) => finding.rule === rule)!;

  it('are warnings with their repair', () => {
    const pass = testPass({ combed: 0.4, topFirst: true });
    const combs = of(job, 'combing', pass);
    expect(combs).toMatchObject({ severity: 'warn', code: 'found' });
    expect(of(fixed(job, combs), 'combing', pass)).toMatchObject({ severity: 'pass' });
    expect(of(job, 'combing', null).severity).toBe('unknown');

    const size = { width: 720, height: 576 };
    const tape = testJob({ picture: size, coded: size });
    const squares = of(tape, 'pixel-aspect', null);
    expect(squares).toMatchObject({ severity: 'warn', code: 'found' });
    expect(of(fixed(tape, squares), 'pixel-aspect', null)).toMatchObject({ severity: 'pass' });
    expect(of(job, 'pixel-aspect', null).severity).toBe('pass');
  });
});
