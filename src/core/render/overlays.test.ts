import { testMaster, testRange, testShot } from '../job/test-job';
import { type Canvas, makeCanvas } from '../layout/canvas';
import { PLAIN_LAYOUT } from '../layout/layout';
import { toSource } from '../master/source';
import { PLAIN_CANVAS_TEXT } from '../words/canvas-text';
import { type ClipText, NO_TEXT } from '../words/clip-text';
import { NO_CAPTIONS } from '../words/captions';
import { withBandWords } from '../words/banded-clip';
import { contrastRatio, computeLuminance } from '../words/contrast';
import { plainBlock, type TextBlock } from '../words/text-block';
import { PLAIN_OUTLINE } from '../words/text-style';
import type { Framing } from '../framing/framing';
import { PLAIN_VALUES } from '../framing/framing';
import { DEFAULT_FOLLOW_OPTIONS } from '../framing/following';
import { presence } from './overlays';
import { plannedFrame, createRenderPlan, type PlanInput } from './plan';

const FILM = { num: 24000, den: 1001 };
const sources = [toSource(testMaster())];
const tall = makeCanvas('verrow/short', { width: 1080, height: 1920 }, FILM, 'canvas-1');
const square = makeCanvas(null, { width: 1080, height: 1080 }, FILM, 'canvas-2');
const banded = { ...square, layout: { ...PLAIN_LAYOUT, kind: 'banded' as const } };
const shots = [testShot('a', 0, 100), testShot('b', 100, 984)];
const cue = (id: string, first: number, out: number, text = 'Kites') => ({
  id,
  text,
  spans: [testRange(first, out)],
});
const withCues = (...cues: ReturnType<typeof cue>[]): ClipText => ({
  ...NO_TEXT,
  captions: { ...NO_CAPTIONS, cues },
});
const plan = (text: ClipText, change: Partial<PlanInput> = {}, canvas = tall) =>
  createRenderPlan(canvas, { cut: [testRange(0, 200)], shots, framings: [], sources, text, ...change });

describe('words in a plan', () => {
  it('are there from their first frame to their last, and at no other', () => {
    const made = plan(withCues(cue('a', 50, 80)), { cut: [testRange(40, 100)] });
    const seen = Array.from({ length: made.frames }, (_, n) => plannedFrame(made, n).words.length);
    expect(seen.indexOf(1)).toBe(10);
    expect(seen.lastIndexOf(1)).toBe(39);
    expect(seen.filter((count) => count === 1)).toHaveLength(30);
  });

  it('belong to frames of their own master, at its own rate, wherever the cut puts these', () => {
    const other = { ...sources[0]!, id: 'other', rate: { num: 50, den: 1 }, frames: 500 };
    const own = { id: 'a', text: 'Kites', spans: [{ master: 'other', in: 100, out: 200 }] };
    const both = {
      ...withCues(cue('b', 10, 20)),
      captions: { ...NO_CAPTIONS, cues: [cue('b', 10, 20), own] },
    };
    const change = { sources: [sources[0]!, other] };
    const first = { master: 'other', in: 50, out: 250 };
    const seen = (cut: PlanInput['cut']) =>
      plan(both, { ...change, cut }).overlays.map(({ art, from, to }) => [art.text, from, to]);
    // 100 frames at 50 are two seconds: 48 of the canvas's; it begins a second after its range does.
    expect(seen([first, testRange(0, 100)])).toEqual([
      ['Kites', 96 + 10, 96 + 20],
      ['Kites', 24, 72],
    ]);
    expect(seen([testRange(0, 100), first]).map(([, from]) => from)).toEqual([10, 124]);
    expect(seen([testRange(0, 100)])).toHaveLength(1);
    expect(seen([testRange(50, 100)])).toHaveLength(0);
  });

  it('come and go over the frames of their fade', () => {
    const text = {
      ...NO_TEXT,
      blocks: [{ ...plainBlock('a', 'Kites'), fade: 0.1, spans: [testRange(10, 20)] }],
    };
    const [overlay] = plan(text).overlays;
    expect(overlay).toMatchObject({ from: 10, to: 20, fade: 2 });
    const there = Array.from({ length: 10 }, (_, n) => presence(overlay!, 10 + n));
    expect(there.slice(0, 3)).toEqual([1 / 3, 2 / 3, 1]);
    expect(there.slice(-2)).toEqual([2 / 3, 1 / 3]);
  });

  it('lie in the bands that a picture leaves, or where these would lie on a canvas without', () => {
    const blocks = [
      { ...plainBlock('a', 'Headline'), on: 'above' as const, box: { x: 0, y: 0, width: 1, height: 1 } },
      { ...plainBlock('b', 'Tag'), on: 'below' as const, box: { x: 0, y: 0, width: 1, height: 1 } },
    ];
    // 1920×1080 fitted to 1080 across is 608 high: 236 are left above it and below it.
    const boxes = plan({ ...NO_TEXT, blocks }, {}, banded).overlays.map(({ art }) => art.box);
    expect(boxes).toEqual([
      { x: 0, y: 0, width: 1080, height: 236 },
      { x: 0, y: 844, width: 1080, height: 236 },
    ]);
    const [above, below] = plan({ ...NO_TEXT, blocks }).overlays.map(({ art }) => art.box);
    expect(above!.y).toBeGreaterThan(100);
    expect(below!.y).toBeGreaterThan(above!.y + above!.height);
    expect(below!.y + below!.height).toBeLessThan(1920);
  });

  it('that were made for a band stand on a plate where there is none, unless they have something around them', () => {
    const [above] = withBandWords([], { above: [{ text: 'Headline', spans: null }], below: [] }, '#FFFFFF');
    const styleOn = (block: TextBlock, canvas: Canvas) =>
      plan({ ...NO_TEXT, blocks: [block] }, {}, canvas).overlays[0]!.art.style;
    expect(styleOn(above!, banded).plate).toBeNull();
    const { plate, colour } = styleOn(above!, tall);
    expect(plate?.cover).toBe(1);
    expect(contrastRatio(computeLuminance(plate!.colour), computeLuminance(colour))).toBeGreaterThan(7);
    const outlined = { ...above!, style: { ...above!.style, outline: PLAIN_OUTLINE } };
    expect(styleOn(outlined, tall).plate).toBeNull();
  });

  it('change by range on a band, in the place of those that were there', () => {
    const line = (text: string, first: number, out: number) => ({ text, spans: [testRange(first, out)] });
    const before = [
      { ...plainBlock('block-1', 'Old'), on: 'above' as const },
      plainBlock('block-2', 'Stays'),
    ];
    const words = { above: [line('One', 0, 50), line('Two', 50, 200)], below: [{ text: ' ', spans: null }] };
    const blocks = withBandWords(before, words, '#FFFFFF');
    expect(new Set(blocks.map(({ id }) => id)).size).toBe(3);
    expect(blocks.map(({ text }) => text)).toEqual(['Stays', 'One', 'Two']);
    const cut = [testRange(0, 50), testRange(100, 200)];
    const made = plan({ ...NO_TEXT, blocks }, { cut }, banded);
    const headlines = made.overlays.filter(({ art }) => art.text !== 'Stays');
    expect(headlines.map(({ from, to, art }) => [art.text, from, to])).toEqual([
      ['One', 0, 50],
      ['Two', 50, 150],
    ]);
  });

  it('keep their share of every canvas, and go their own way on one', () => {
    const text = { ...NO_TEXT, blocks: [plainBlock('a', 'Kites')] };
    const sizes = [tall, square, { ...tall, width: 360, height: 640 }].map(
      (canvas) => plan(text, {}, canvas).overlays[0]!.art.size,
    );
    expect(sizes).toEqual([75.5, 75.5, 25]);
    const { on, seat } = plainBlock('a', '');
    const place = {
      block: 'a',
      on,
      seat,
      box: { x: 0, y: 0, width: 0.5, height: 0.5 },
      fitted: true,
      size: 0.1,
      shown: true,
    };
    const alone = { ...tall, text: { ...PLAIN_CANVAS_TEXT, places: [place] } };
    expect(plan(text, {}, alone).overlays[0]!.art).toMatchObject({
      size: null,
      box: { x: 0, y: 0, width: 540, height: 960 },
    });
    const hidden = { ...tall, text: { ...PLAIN_CANVAS_TEXT, places: [{ ...place, shown: false }] } };
    expect(plan(text, {}, hidden).overlays).toEqual([]);
  });

  it('mark each word while it is spoken, without a gap', () => {
    const text = withCues(cue('a', 20, 80, 'one two three'));
    const made = plan({ ...text, captions: { ...text.captions, spoken: '#FF0000' } });
    expect(made.overlays.map(({ art }) => art.mark?.from)).toEqual([0, 4, 8]);
    expect(made.overlays[0]!.from).toBe(20);
    expect(made.overlays[1]!.from).toBe(made.overlays[0]!.to);
    expect(made.overlays[2]!.to).toBe(80);
  });

  it('mark the word that is spoken, also of a caption that is trimmed', () => {
    const text = withCues(cue('a', 20, 80, 'one two three'));
    const spoken = { ...text, captions: { ...text.captions, spoken: '#FF0000' } };
    const whole = plan(spoken).overlays;
    // The first word and a half are cut away.
    const middle = Math.round((whole[1]!.from + whole[1]!.to) / 2);
    const made = plan(spoken, { cut: [testRange(middle, 100)] }).overlays;
    expect(made.map(({ art }) => art.mark?.from)).toEqual([4, 8]);
    expect(made.map(({ from, to }) => [from + middle, to + middle])).toEqual([
      [middle, whole[1]!.to],
      [whole[2]!.from, whole[2]!.to],
    ]);
  });

  it('leave captions out where they go out as files alone', () => {
    const beside = { ...tall, text: { places: [], captions: 'beside' as const } };
    expect(plan(withCues(cue('a', 20, 80)), {}, beside).overlays).toEqual([]);
  });
});

describe('captions keep clear', () => {
  const boxOf = (change: Partial<PlanInput>, text = withCues(cue('a', 20, 80))) =>
    plan(text, change).overlays.at(-1)!.art.box;
  const plainBox = boxOf({});

  it('of what the outlet puts over the picture', () => {
    expect(plainBox.y + plainBox.height).toBeGreaterThan(0.9 * 1920);
    const zone = { x: 0, y: 0.75, width: 1, height: 0.25 };
    const box = boxOf({ zones: [zone] });
    expect(box.y + box.height).toBeLessThanOrEqual(0.75 * 1920);
    expect(box.y).toBeGreaterThan(0.5 * 1920);
  });

  it('of a column at a side, by being narrower rather than by moving away', () => {
    const column = { x: 0.86, y: 0.42, width: 0.14, height: 0.58 };
    const box = boxOf({ zones: [column] });
    expect(box.y).toBe(plainBox.y);
    expect(box.x + box.width).toBeLessThanOrEqual(0.86 * 1080);
    expect(box.x).toBe(1080 - box.x - box.width);
  });

  it('of text blocks that are there at the time, and of no others', () => {
    const block = { ...plainBlock('t', 'Title'), box: { x: 0, y: 0.8, width: 1, height: 0.2 } };
    const both = { ...withCues(cue('a', 20, 80)), blocks: [block] };
    expect(boxOf({}, both).y).toBeLessThan(plainBox.y - 100);
    const later = { ...both, blocks: [{ ...block, spans: [testRange(100, 150)] }] };
    expect(boxOf({}, later)).toEqual(plainBox);
  });

  it('of the subject that is followed', () => {
    const framing: Framing = {
      shot: 'a',
      track: 'main',
      turn: 0,
      fit: false,
      keyframes: [{ ...PLAIN_VALUES, frame: 0, ease: null }],
      following: {
        subjects: [{ frame: 0, x: 0.5, y: 0.9 }],
        wishes: DEFAULT_FOLLOW_OPTIONS,
        places: [{ frame: 0, x: 0.5, y: 0.9 }],
        doubts: [],
        unserved: [],
      },
    };
    expect(boxOf({ framings: [framing] }).y).toBeLessThan(plainBox.y - 100);
  });
});

describe('an end card', () => {
  const card = { seconds: 2, colour: '#102030' };
  const text = { ...NO_TEXT, card, blocks: [{ ...plainBlock('a', 'Thanks'), on: 'card' as const }] };

  it('comes after the cut, over a picture that stands still', () => {
    const made = plan(text);
    expect([made.frames, made.cardFrames]).toEqual([248, 48]);
    expect(plannedFrame(made, 199).words).toEqual([]);
    for (const frame of [200, 247]) {
      const { masterFrame, words } = plannedFrame(made, frame);
      expect(masterFrame).toBe(199);
      expect(words.map(({ art }) => [art.ground, art.text])).toEqual([
        ['#102030', ''],
        [null, 'Thanks'],
      ]);
    }
  });

  it('is not there where there is none, and words over the clip end before it', () => {
    const plain = { ...NO_TEXT, blocks: [plainBlock('a', 'Kites')] };
    expect(plan(plain).frames).toBe(200);
    expect(plan({ ...plain, card }).overlays.at(-1)).toMatchObject({ from: 0, to: 200 });
  });
});
