import {
  testRateChange,
  choose,
  createFramingCommand,
  keep,
  testJob,
  TEST_MASTER,
  testRange,
  testShot,
} from '../test-job';
import fc from 'fast-check';
import { NO_REPAIRS } from '../../master/repairs';
import { PLAIN_LAYOUT } from '../../layout/layout';
import { NO_CAPTIONS } from '../../words/captions';
import { plainBlock } from '../../words/text-block';
import { addCanvas } from '../canvases';
import {
  computeChange,
  extendStep,
  EMPTY_HISTORY,
  recordStep,
  redoStep,
  undoStep,
  type EditWithHistory,
} from '../history';
import { activeClip, type Edit, jobSchema } from '../job';
import { readStoredJob, storedJob } from '../stored-job';
import { applyCommand, type Command, stepLabel, stepName } from './commands';
import { A_TOUCH, PLAIN_ENCODING } from '../../rate/encoding';

const job = testJob();
const clip = activeClip(job.edit);
const SHOT = `${TEST_MASTER}-1`;
const FILM = { num: 24000, den: 1001 };
const { cues: _cues, ...LOOK } = NO_CAPTIONS;
const FAST = { num: 48000, den: 1001 };

/** The job's edit after commands, with its history. */
const after = (commands: readonly Command[]): EditWithHistory =>
  commands.reduce<EditWithHistory>(
    (now, command) => {
      const change = computeChange(now.edit, command);
      return change ? recordStep(now, change) : now;
    },
    { edit: job.edit, history: EMPTY_HISTORY },
  );
const framing = (x: number): Command => createFramingCommand({ focus: { x, y: 0.5 }, zoom: 1.5 });

/** Commands of every kind: a kind without any does not compile. */
const OF_KIND: { [N in Command['type']]: fc.Arbitrary<Extract<Command, { type: N }>> } = {
  'set-cut': fc
    .tuple(fc.nat(500), fc.integer({ min: 501, max: 984 }))
    .map(([first, out]) => ({ type: 'set-cut', act: 'trim', cut: [testRange(first, out)] })),
  'set-shots': fc.integer({ min: 1, max: 983 }).map((frame) => ({
    type: 'set-shots',
    act: 'add',
    master: TEST_MASTER,
    old: [testShot(SHOT, 0, 984)],
    boundaries: [
      { frame: 0, start: null },
      { frame, start: { kind: 'set', confidence: 1, frames: 0 } },
    ],
    frames: 984,
  })),
  'tick-shot': fc.constantFrom('x', null).map((signature) => ({ type: 'tick-shot', shot: SHOT, signature })),
  'set-repairs': fc.constantFrom('bt709', null).map((matrix) => ({
    type: 'set-repairs',
    master: TEST_MASTER,
    repairs: { ...NO_REPAIRS, matrix },
    rates: testRateChange(FILM, FILM),
  })),
  'set-clips': fc.boolean().map((two) => ({
    type: 'set-clips',
    act: two ? 'add' : 'remove',
    clips: two ? [clip, { ...clip, id: 'clip-2' }] : [clip],
    clip: clip.id,
  })),
  'set-encoding': fc.constantFrom(A_TOUCH, null).map((sharpening) => ({
    type: 'set-encoding',
    canvases: clip.canvases.map(({ id }) => id),
    encoding: { ...PLAIN_ENCODING, sharpening },
  })),
  'set-loudness': fc
    .constantFrom('kept' as const, -16)
    .map((loudness) => ({ type: 'set-loudness', loudness })),
  'set-video-bits': fc.constantFrom(5_000_000, null).map((bits) => ({ type: 'set-video-bits', bits })),
  'set-words': fc
    .string()
    .map((title) => ({ type: 'set-words', words: { title, description: '', tags: [] } })),
  'mend-words': fc.string().map((description) => ({ type: 'mend-words', words: { description } })),
  'set-audience': fc
    .constantFrom('private' as const, 'public' as const)
    .chain((audience) =>
      fc
        .constantFrom({}, { placement: 'verrow/short' })
        .map((where) => ({ type: 'set-audience', audience, ...where })),
    ),
  'set-override': fc
    .constantFrom('it is meant so', null)
    .map((reason) => ({ type: 'set-override', rule: 'length', canvas: 'canvas-1', reason })),
  'set-canvases': fc.boolean().map((two) => ({
    type: 'set-canvases',
    act: two ? 'add' : 'remove',
    canvases: two ? addCanvas(clip, { width: 640, height: 360 }, null).canvases : clip.canvases,
    canvas: 'canvas-1',
  })),
  'choose-placement': fc
    .constantFrom('verrow/short', 'tesselle/square', 'tesselle/portrait')
    .map((placement) => choose(placement) as Extract<Command, { type: 'choose-placement' }>),
  'set-rate': fc.constantFrom(FILM, FAST).map((rate) => ({ type: 'set-rate', rate })),
  'fill-canvas': fc.constant({ type: 'fill-canvas' }),
  together: fc.constantFrom(FILM, FAST).map((rate) => ({
    type: 'together',
    act: 'fixes',
    steps: [{ clip: clip.id, canvas: 'canvas-1', command: { type: 'set-rate', rate } }],
  })),
  'set-framings': fc
    .tuple(fc.double({ min: 0, max: 1, noNaN: true }), fc.boolean())
    .map(
      ([x, fit]) =>
        createFramingCommand({ focus: { x, y: 0.5 }, zoom: 1.5 }, { fit }) as Extract<
          Command,
          { type: 'set-framings' }
        >,
    ),
  'reset-framing': fc.constant({ type: 'reset-framing', shot: SHOT, track: 'main', owner: 'shared' }),
  detach: fc.constant({ type: 'detach', canvas: 'canvas-1', shot: { id: SHOT, in: 0 } }),
  'set-blocks': fc.array(fc.string({ maxLength: 20 }), { maxLength: 4 }).map((texts) => ({
    type: 'set-blocks',
    act: 'write',
    blocks: texts.map((text, i) => plainBlock(`block-${i}`, text)),
  })),
  'set-cues': fc.array(fc.nat(900), { maxLength: 5 }).map((frames) => ({
    type: 'set-cues',
    act: 'read',
    cues: frames.map((frame, i) => ({
      id: `cue-${i}`,
      text: 'Kites',
      spans: [testRange(frame, frame + 50)],
    })),
  })),
  'set-captions': fc.constantFrom('top', 'bottom').map((seat) => ({
    type: 'set-captions',
    act: 'look',
    captions: { ...LOOK, seat },
  })),
  'set-card': fc
    .constantFrom(null, { seconds: 2, colour: '#1F2B33' })
    .map((card) => ({ type: 'set-card', card })),
  'set-cover': fc.nat(900).map((frame) => ({ type: 'set-cover', cover: { master: TEST_MASTER, frame } })),
  'set-canvas-text': fc.constantFrom('burnt', 'both').map((captions) => ({
    type: 'set-canvas-text',
    act: 'captions',
    canvas: 'canvas-1',
    text: { places: [], captions },
  })),
  'make-banded': fc.constantFrom('One', 'Two').map((text) => ({
    type: 'make-banded',
    canvas: 'canvas-1',
    layout: { ...PLAIN_LAYOUT, kind: 'banded' },
    blocks: [plainBlock('block-1', text)],
  })),
  attach: fc.constant({ type: 'attach', canvas: 'canvas-1', shot: SHOT }),
};
const command: fc.Arbitrary<Command> = fc.oneof(...Object.values<fc.Arbitrary<Command>>(OF_KIND));

const EXTREMES = [-1e9, 1e9, 1.5, NaN, null, '', 'x'.repeat(6000), [], {}] as const;

/** Where the values of a command are that hold no others. */
const placesIn = (value: unknown, at: string[] = []): string[][] =>
  typeof value === 'object' && value !== null
    ? Object.entries(value).flatMap(([key, part]) => (key === 'type' ? [] : placesIn(part, [...at, key])))
    : [at];

/** A value with another at a place in it. */
function withPlace(value: unknown, [key, ...rest]: readonly string[], other: unknown): unknown {
  if (key === undefined) return other;
  const whole = value as Record<string, unknown>;
  const part = withPlace(whole[key], rest, other);
  return Array.isArray(value) ? value.with(Number(key), part) : { ...whole, [key]: part };
}

describe('commands', () => {
  it('can all be undone and done again', () => {
    fc.assert(
      fc.property(fc.array(command, { maxLength: 30 }), (commands) => {
        let now = after(commands);
        const end = now.edit;
        const steps = now.history.past.length;
        for (let i = 0; i < steps; i++) now = undoStep(now);
        expect(now.edit).toEqual(job.edit);
        for (let i = 0; i < steps; i++) now = redoStep(now);
        expect(now.edit).toEqual(end);
      }),
    );
  });

  it('leave a job that reads back the same, with its history', () => {
    fc.assert(
      fc.property(fc.array(command, { maxLength: 12 }), (commands) => {
        const now = after(commands);
        const file = { job: { ...job, edit: now.edit }, history: now.history, revision: 7 };
        expect(readStoredJob(storedJob(file))).toEqual({ ok: true, file });
      }),
    );
  });

  it('are refused, or leave a job that reads back, whatever one of their values is', () => {
    fc.assert(
      fc.property(command, fc.nat(), fc.constantFrom(...EXTREMES), (any, at, extreme) => {
        const places = placesIn(any);
        const spoiled = withPlace(any, places[at % places.length] ?? ['act'], extreme) as Command;
        let edit: Edit;
        try {
          edit = applyCommand(job.edit, spoiled);
        } catch (error) {
          expect(error).toBeInstanceOf(RangeError);
          return;
        }
        const stored: unknown = JSON.parse(JSON.stringify({ ...job, edit }));
        expect([jobSchema.safeParse(stored).error, spoiled]).toEqual([undefined, spoiled]);
      }),
      { numRuns: 1000 },
    );
  });

  it('that continue one another are one step', () => {
    const start = { edit: job.edit, history: EMPTY_HISTORY };
    const first = recordStep(start, computeChange(job.edit, framing(0.4))!);
    const second = extendStep(first, computeChange(first.edit, framing(0.3))!);
    expect(second.history.past).toHaveLength(1);
    expect(undoStep(second).edit).toEqual(job.edit);
    expect(redoStep(undoStep(second)).edit).toEqual(second.edit);
  });

  it('have a name where they can be undone, and none that is not there is taken', () => {
    fc.assert(
      fc.property(command, (any) => expect(stepLabel(stepName(any))).not.toBe('an earlier step')),
      { numRuns: 300 },
    );
    expect(stepLabel('of-a-later-version')).toBe('an earlier step');
    expect(() => applyCommand(job.edit, { type: 'unknown' } as never)).toThrow(RangeError);
  });

  it('leave what they were given as it was', () => {
    const before = structuredClone(job.edit);
    applyCommand(job.edit, keep(1, 2));
    expect(job.edit).toEqual(before);
  });
});
