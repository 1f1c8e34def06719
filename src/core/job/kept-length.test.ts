import fc from 'fast-check';
import { makeCanvas } from '../layout/canvas';
import { cutFrames, toMasterLengths } from '../cut/cut';
import { splitCut } from '../cut/parts';
import { countFramesWithin, STANDARD_RATES } from '../time/frame-rate';
import { cardFrames, NO_TEXT } from '../words/clip-text';
import type { Clip } from './clip';
import { activeClip } from './job';
import { maxKeptFrames } from './kept-length';
import { testJob, testMaster } from './test-job';

const rates = fc.constantFrom(...STANDARD_RATES);
const SIZE = { width: 1080, height: 1920 };

/** A clip of two masters at any rates, on canvases at any rates, with an end card or without. */
const clips = fc
  .record({
    own: fc.tuple(rates, rates),
    canvases: fc.array(rates, { minLength: 1, maxLength: 3 }),
    frames: fc.tuple(fc.integer({ min: 200, max: 4000 }), fc.integer({ min: 200, max: 4000 })),
    card: fc.option(fc.double({ min: 0.2, max: 5, noNaN: true })),
  })
  .map(({ own, canvases, frames, card }) => {
    const masters = own.map((rate, n) => testMaster({ id: `m${n}`, rate, frames: frames[n] ?? 1 }));
    const clip: Clip = {
      ...activeClip(testJob().edit),
      cut: masters.map(({ id, frames: out }) => ({ master: id, in: 0, out })),
      canvases: canvases.map((rate, n) => makeCanvas(null, SIZE, rate, `canvas-${n}`)),
      text: { ...NO_TEXT, card: card === null ? null : { seconds: card, colour: '#000000' } },
    };
    return { clip, lengths: toMasterLengths(masters) };
  });

describe('what a clip may keep to last no longer than a limit', () => {
  it('is within it in every part, on every canvas, at any rates, with its end card', () => {
    fc.assert(
      fc.property(clips, fc.integer({ min: 8, max: 60 }), ({ clip, lengths }, seconds) => {
        const most = maxKeptFrames(clip, lengths, seconds);
        for (const cut of splitCut(clip.cut, { most, overlap: 0, divisions: [] })) {
          for (const { rate } of clip.canvases) {
            const lasts = cutFrames(cut, lengths, rate) + cardFrames(clip.text?.card, rate);
            expect(lasts).toBeLessThanOrEqual(countFramesWithin(seconds, rate));
          }
        }
      }),
      { numRuns: 500 },
    );
  });

  it('leaves less than a frame of it unused, at one rate', () => {
    fc.assert(
      fc.property(rates, rates, fc.integer({ min: 8, max: 60 }), (own, rate, seconds) => {
        const master = testMaster({ rate: own, frames: 100_000 });
        const lengths = toMasterLengths([master]);
        const whole = [{ master: master.id, in: 0, out: master.frames }];
        const clip = {
          ...activeClip(testJob().edit),
          cut: whole,
          canvases: [makeCanvas(null, SIZE, rate, 'c')],
        };
        const out = 1 + maxKeptFrames(clip, lengths, seconds);
        const lasts = cutFrames([{ ...whole[0]!, out }], lengths, rate);
        expect(lasts).toBeGreaterThan(countFramesWithin(seconds, rate));
      }),
    );
  });
});
