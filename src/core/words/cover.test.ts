import { coverCrop, type CoverFacts, coverText, greyFacts, listProposedCovers } from './cover';
import { NO_TEXT } from './clip-text';
import { plainBlock } from './text-block';

describe('a cover', () => {
  it('shows the middle of the canvas in the ratio that is asked for', () => {
    const tall = { width: 1080, height: 1920 };
    expect(coverCrop(tall, { width: 1080, height: 1920 })).toEqual({ x: 0, y: 0, width: 1, height: 1 });
    expect(coverCrop(tall, { width: 640, height: 640 })).toEqual({
      x: 0,
      y: 0.21875,
      width: 1,
      height: 0.5625,
    });
    expect(coverCrop({ width: 1920, height: 1080 }, { width: 500, height: 500 }).width).toBeCloseTo(
      0.5625,
      9,
    );
  });

  it('has the words of its own, and none of the clip', () => {
    const blocks = [
      plainBlock('a', 'In the clip'),
      { ...plainBlock('b', 'On the cover'), on: 'cover' as const },
    ];
    expect(coverText({ ...NO_TEXT, blocks }).blocks.map(({ text, on }) => [text, on])).toEqual([
      ['On the cover', 'canvas'],
    ]);
  });
});

describe('proposals for a cover', () => {
  const facts = (frame: number, change: Partial<CoverFacts> = {}): CoverFacts => ({
    frame,
    detail: 5,
    light: 120,
    fromCut: 50,
    subject: false,
    ...change,
  });
  const [dark, soft, atCut, someone] = [
    facts(100, { light: 5 }),
    facts(200, { detail: 0.5 }),
    facts(300, { fromCut: 0 }),
    facts(400, { subject: true }),
  ];

  it('are sharp, bright, far from cuts, and show somebody who is known', () => {
    expect(listProposedCovers([dark, soft, atCut, someone, facts(500)], 2, 25)).toEqual([400, 500]);
  });

  it('lie apart, as many as there are', () => {
    expect(listProposedCovers([facts(0), facts(1), facts(2), facts(300)], 3, 25)).toEqual([0, 300]);
    expect(listProposedCovers([], 3, 25)).toEqual([]);
  });

  it('know what is light and what has detail', () => {
    const picture = (of: (i: number) => number) => ({
      width: 16,
      height: 9,
      data: Uint8Array.from({ length: 144 }, (_, i) => of(i)),
    });
    expect(greyFacts(picture(() => 90))).toEqual({ detail: 0, light: 90 });
    const board = greyFacts(picture((i) => (((i % 16) + Math.floor(i / 16)) % 2 === 0 ? 0 : 200)));
    expect(board.detail).toBeGreaterThan(150);
    expect(board.light).toBeCloseTo(100, 6);
  });
});
