import { testFraming, testMaster, testRange, testShot } from '../job/test-job';
import type { Track } from '../follow/evidence';
import { makeCanvas } from '../layout/canvas';
import { toSource } from '../master/source';
import type { PictureRect } from '../picture/size';
import { createRenderPlan } from './plan';
import { isFaceVisible } from './seen-faces';

const FILM = { num: 24000, den: 1001 };
const tall = makeCanvas('verrow/short', { width: 1080, height: 1920 }, FILM, 'canvas-1');
const box = (x: number): PictureRect => ({ x: x - 0.05, y: 0.4, width: 0.1, height: 0.2 }) as PictureRect;
const going = (kind: Track['kind']): Track => ({
  kind,
  look: null,
  // From the left edge to the right one.
  points: [
    { frame: 100, box: box(0), confidence: 1 },
    { frame: 200, box: box(1), confidence: 1 },
  ],
});

describe('a face that was found', () => {
  // A tall window in the middle of 16:9 is (9/16)² of its width: from 0.342 to 0.658.
  const plan = (change = {}) =>
    createRenderPlan(tall, {
      cut: [testRange(50, 250)],
      shots: [testShot('a', 0, 984)],
      framings: [],
      sources: [{ ...toSource(testMaster()), ...change }],
    });
  const seenAt = (made: ReturnType<typeof plan>, kind: Track['kind'] = 'face') =>
    Array.from({ length: made.frames }, (_, n) => n).filter((n) => isFaceVisible(made, n, [going(kind)]));

  it('is seen while its middle is in the window, and at no other frame', () => {
    const seen = seenAt(plan());
    // Master frame 135 has it at 0.35, and 165 at 0.65; the range begins at 50.
    expect([seen[0], seen.at(-1), seen.length]).toEqual([85, 115, 31]);
    expect(seenAt(plan(), 'person')).toEqual([]);
  });

  it('is looked for in the live area, and in the window that a person chose', () => {
    const right = testFraming({ focus: { x: 0.84, y: 0.5 } });
    const made = createRenderPlan(tall, {
      cut: [testRange(50, 250)],
      shots: [],
      framings: [right],
      sources: [toSource(testMaster())],
    });
    const seen = seenAt(made);
    expect(seen[0]).toBeGreaterThan(115);
    // Bars at both sides: the middle half is live, and a window in its middle is half as wide in the picture.
    const barred = seenAt(plan({ live: { x: 0.25, y: 0, width: 0.5, height: 1 } }));
    expect(barred.length).toBeGreaterThan(0);
    expect(barred.every((frame) => frame >= 75 && frame <= 125)).toBe(true);
  });
});
