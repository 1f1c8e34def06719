import fc from 'fast-check';
import { applyCommand, type Command } from '../job/commands/commands';
import { addCanvas, changeCanvas } from '../job/canvases';
import { activeClip, onCanvas, onClip, type Work } from '../job/job';
import { choose, createFramingCommand, keep, testJob, testRange, testShot } from '../job/test-job';
import { plainBlock } from '../words/text-block';
import { createPassLookup, LOOKED, testPass } from '../job/test-pass';
import { plainFraming, PLAIN_VALUES } from '../framing/framing';
import { STANDARD_RATES } from '../time/frame-rate';
import { listPlacements } from '../outlets/outlets';
import { SHIPPED_SHEETS } from '../outlets/shipped';
import { CheckBoard, countWhole, rankSeverity, findWorstSeverity } from './check-board';
import type { Finding } from './finding';
import { safeFixes } from './fix-all';
import { fixCommand } from './fixes';
import { listChangedVerdicts } from './verdicts';

const change = (work: Work, command: Command): Work => ({ ...work, edit: applyCommand(work.edit, command) });

/** Two clips on two canvases each, over three shots. */
function twoClips(): Work {
  const start = testJob();
  const shots = [testShot('a', 0, 300), testShot('b', 300, 600), testShot('c', 600, 984)];
  const work = { masters: start.masters, edit: { ...start.edit, shots } };
  const clip = {
    ...activeClip(work.edit),
    ...addCanvas(activeClip(work.edit), { width: 1080, height: 1080 }, 'tesselle/square'),
  };
  const other = { ...clip, id: 'clip-2', name: 'Other' };
  return change(work, { type: 'set-clips', act: 'add', clips: [clip, other], clip: 'clip-1' });
}

const LAST = 984;
const framing = (shot: string, x: number, zoom: number): Command => ({
  type: 'set-framings',
  act: 'move',
  owner: 'shared',
  framings: [
    {
      ...plainFraming(shot, 'main', 0),
      keyframes: [0, 40].map((frame) => ({ ...PLAIN_VALUES, frame, zoom, focus: { x, y: 0.5 }, ease: null })),
    },
  ],
});
const unit = fc.double({ min: 0, max: 1, noNaN: true });
const anyCommand: fc.Arbitrary<Command> = fc.oneof(
  fc
    .tuple(fc.constantFrom('a', 'b', 'c'), unit, fc.double({ min: 1, max: 4, noNaN: true }))
    .map((at) => framing(...at)),
  fc.tuple(fc.nat(LAST - 2), fc.nat(LAST)).map(([a, b]) => keep(Math.min(a, b), Math.max(a, b) + 1)),
  fc.constantFrom('verrow/short', 'tesselle/portrait', 'commonfold/wide').map(choose),
  fc
    .string({ maxLength: 120 })
    .map((title): Command => ({ type: 'set-words', words: { title, description: '', tags: [] } })),
  fc.constantFrom(3_000_000, 12_000_000, null).map((bits): Command => ({ type: 'set-video-bits', bits })),
  fc
    .constantFrom({ num: 30, den: 1 }, { num: 24000, den: 1001 })
    .map((rate): Command => ({ type: 'set-rate', rate })),
  fc.boolean().map((fit) => createFramingCommand({}, { shot: 'b', fit })),
  fc.string({ maxLength: 40 }).map((text): Command => ({
    ...{ type: 'set-blocks', act: 'write' },
    blocks: [plainBlock('words', text)],
  })),
  fc.tuple(fc.nat(900), fc.string({ maxLength: 60 })).map(([first, text]): Command => ({
    ...{ type: 'set-cues', act: 'write' },
    cues: [{ id: 'cue', text, spans: [testRange(first, first + 48)] }],
  })),
  fc
    .constantFrom(2, 3, null)
    .map((seconds): Command => ({ type: 'set-card', card: seconds && { seconds, colour: '#1F2B33' } })),
);
const anyPlace = fc.tuple(fc.constantFrom('clip-1', 'clip-2'), fc.constantFrom('canvas-1', 'canvas-2'));

describe('the check of a whole job', () => {
  it('has a cell for each clip, canvas and placement', () => {
    const work = twoClips();
    const also = changeCanvas(activeClip(work.edit), 'canvas-1', {
      also: ['tesselle/vanishing', 'gone/none'],
    });
    const cells = new CheckBoard().check(
      change(work, { type: 'set-canvases', act: 'size', ...also }),
      LOOKED,
    );
    expect(cells.map(({ clipName, label }) => `${clipName}: ${label}`)).toEqual([
      'Edit: Verrow Short',
      'Edit: Tesselle Vanishing',
      'Edit: Tesselle Square',
      'Other: Verrow Short',
      'Other: Tesselle Square',
    ]);
  });

  it('finds what a check from nothing finds, whatever was changed before', () => {
    fc.assert(
      fc.property(fc.array(fc.tuple(anyPlace, anyCommand), { minLength: 1, maxLength: 8 }), (changes) => {
        const board = new CheckBoard();
        // Its first canvas is judged twice: for an outlet that wants two channels, and for one that takes one.
        const two = twoClips();
        const also = changeCanvas(activeClip(two.edit), 'canvas-1', { also: ['tesselle/vanishing'] });
        let work = change(two, { type: 'set-canvases', act: 'also', ...also });
        board.check(work, LOOKED);
        for (const [[clip, canvas], command] of changes) {
          work = change(onCanvas(onClip(work, clip), canvas), command);
          expect(board.check(work, LOOKED)).toEqual(new CheckBoard().check(work, LOOKED));
        }
      }),
      { numRuns: 40 },
    );
  });

  it('asks no rule again whose subject is the same', () => {
    const board = new CheckBoard();
    const work = twoClips();
    const before = board.check(work, LOOKED);
    const after = board.check(change(work, framing('a', 0.3, 2)), LOOKED);
    const same = (rule: Finding['rule']) =>
      after.every(({ findings }, i) => {
        const find = (all: Finding[] = []) => all.find((finding) => finding.rule === rule);
        return find(findings) === find(before[i]?.findings);
      });
    expect(same('title')).toBe(true);
    expect(same('colour')).toBe(true);
    expect(same('enlargement')).toBe(false);
  });

  it('counts a stop that was let pass as a note', () => {
    const work = change(twoClips(), {
      type: 'set-override',
      rule: 'tag',
      canvas: 'canvas-1',
      reason: 'by hand',
    });
    const [cell] = new CheckBoard().check(work, LOOKED);
    const tag = cell!.findings.find(({ rule }) => rule === 'tag')!;
    expect([tag.severity, countWhole(tag, cell!.overrides)]).toEqual(['stop', 'note']);
    expect(findWorstSeverity({ findings: [tag], overrides: cell!.overrides })).toBe('note');
  });
});

describe('a changed rule sheet', () => {
  it('tells what got worse and what got better, with old and new limit', () => {
    const shorter = SHIPPED_SHEETS.map((sheet) => ({
      ...sheet,
      placements: sheet.placements.map((placement) => ({
        ...placement,
        length: { ...placement.length, most: 30 },
      })),
    }));
    const work = twoClips();
    const [before, after] = [SHIPPED_SHEETS, shorter].map((sheets) =>
      new CheckBoard().check(work, { ...LOOKED, sheets }),
    ) as [ReturnType<CheckBoard['check']>, ReturnType<CheckBoard['check']>];
    const worse = listChangedVerdicts(before, after).filter(({ rule }) => rule === 'length');
    expect(worse.map(({ cell, worse }) => [cell.clip, cell.canvas, worse])).toEqual([
      ['clip-1', 'canvas-1', true],
      ['clip-1', 'canvas-2', true],
      ['clip-2', 'canvas-1', true],
      ['clip-2', 'canvas-2', true],
    ]);
    expect(worse[0]).toMatchObject({ before: { code: 'outside-best' }, after: { values: { limit: 30 } } });
    expect(listChangedVerdicts(after, before).every(({ worse }) => !worse)).toBe(true);
    expect(listChangedVerdicts(before, before)).toEqual([]);
  });
});

describe('a rule sheet that is gone', () => {
  it('is told of as something worse', () => {
    const work = twoClips();
    const without = { ...LOOKED, sheets: SHIPPED_SHEETS.filter(({ outlet }) => outlet !== 'verrow') };
    const [before, after] = [LOOKED, without].map((known) => new CheckBoard().check(work, known));
    const worse = listChangedVerdicts(before!, after!).filter(({ worse }) => worse);
    expect(worse.map(({ cell, rule }) => [cell.clip, cell.placement, rule])).toEqual([
      ['clip-1', 'verrow/short', 'sheet'],
      ['clip-2', 'verrow/short', 'sheet'],
    ]);
  });
});

/** Jobs with something wrong that has a fix, by what is wrong. */
const BROKEN: [string, Work, ReturnType<typeof createPassLookup>][] = [
  ['another rate', change(twoClips(), { type: 'set-rate', rate: { num: 30, den: 1 } }), LOOKED],
  [
    'another size',
    change(twoClips(), {
      type: 'set-canvases',
      act: 'size',
      ...changeCanvas(activeClip(twoClips().edit), 'canvas-1', { width: 1080, height: 1080 }),
    }),
    LOOKED,
  ],
  [
    'too many bits',
    change(change(twoClips(), choose('tesselle/portrait')), { type: 'set-video-bits', bits: 50_000_000 }),
    LOOKED,
  ],
  [
    'a long title',
    change(twoClips(), { type: 'set-words', words: { title: 'x'.repeat(200), description: '', tags: [] } }),
    LOOKED,
  ],
  ['bars', change(twoClips(), createFramingCommand({}, { shot: 'b', fit: true })), LOOKED],
  [
    'bars in the master',
    twoClips(),
    createPassLookup(testPass({ live: { x: 0, y: 0.03, width: 1, height: 0.94 } as never })),
  ],
  ['combs', twoClips(), createPassLookup(testPass({ combed: 0.5, topFirst: true }))],
  ['another audience', change(twoClips(), { type: 'set-audience', audience: 'friends' }), LOOKED],
];

describe('fixes', () => {
  it.each(BROKEN)('of %s make nothing else worse', (_, work, known) => {
    const before = new CheckBoard().check(work, known);
    let applied = 0;
    for (const cell of before) {
      for (const { fix, rule, severity } of cell.findings) {
        if (!fix) continue;
        applied += 1;
        const there = onCanvas(onClip(work, cell.clip), cell.canvas);
        const after = new CheckBoard().check(
          { ...work, edit: applyCommand(there.edit, fixCommand(fix)) },
          known,
        );
        const here = after.find((one) => one.clip === cell.clip && one.canvas === cell.canvas);
        const fixed = here?.findings.find((finding) => finding.rule === rule);
        expect(rankSeverity(fixed!.severity)).toBeLessThan(rankSeverity(severity));
        const worse = listChangedVerdicts(before, after).filter((verdict) => verdict.worse);
        expect(worse.map((verdict) => [rule, verdict.rule, verdict.after.severity])).toEqual([]);
      }
    }
    expect(applied).toBeGreaterThan(0);
  });

  it('that are safe raise no finding to a stop, at any rates, for any placement, with counts at their limits', () => {
    const placements = listPlacements(SHIPPED_SHEETS);
    const cases = fc.record({
      target: fc.constantFrom(...placements),
      own: fc.constantFrom(...STANDARD_RATES),
      rate: fc.constantFrom(...STANDARD_RATES),
      short: fc.integer({ min: 0, max: 2 }),
      bits: fc.constantFrom(null, 3_000_000, 50_000_000),
    });
    fc.assert(
      fc.property(cases, ({ target, own, rate, short, bits }) => {
        const job = testJob({ rate: own });
        const tags = Array.from(
          { length: Math.max(0, target.placement.words.tags.most - short) },
          (_, n) => `tag${n}`,
        );
        const commands: Command[] = [
          choose(target.key),
          { type: 'set-rate', rate },
          { type: 'set-words', words: { title: 'Kites', description: '', tags } },
          { type: 'set-video-bits', bits },
        ];
        const work = commands.reduce(change, { masters: job.masters, edit: job.edit } as Work);
        const before = new CheckBoard().check(work, LOOKED);
        const steps = safeFixes(work, LOOKED);
        if (steps.length === 0) return;
        const edit = applyCommand(work.edit, { type: 'together', act: 'fixes', steps });
        const after = new CheckBoard().check({ ...work, edit }, LOOKED);
        const worse = listChangedVerdicts(before, after).filter((verdict) => verdict.worse);
        expect(worse.map(({ rule, after: { severity } }) => [rule, severity])).toEqual([]);
      }),
      { numRuns: 150 },
    );
  });

  it.each(BROKEN)('that are safe are applied together as one step: %s', (_, work, known) => {
    const steps = safeFixes(work, known);
    const edit = applyCommand(work.edit, { type: 'together', act: 'fixes', steps });
    expect([edit.clip, edit.clips.map(({ canvas }) => canvas)]).toEqual([
      work.edit.clip,
      work.edit.clips.map(({ canvas }) => canvas),
    ]);
    const left = safeFixes({ ...work, edit }, known);
    expect(left).toEqual([]);
    // The tag of each clip, at least.
    expect(steps.filter(({ rule }) => rule === 'tag').map(({ clip }) => clip)).toEqual(['clip-1', 'clip-2']);
    const worse = listChangedVerdicts(
      new CheckBoard().check(work, known),
      new CheckBoard().check({ ...work, edit }, known),
    );
    expect(worse.filter((verdict) => verdict.worse)).toEqual([]);
  });
});
