import { type MasterLengths, slowestRate } from '../cut/cut';
import { countFramesWithin, shownFrame } from '../time/frame-rate';
import { cardFrames } from '../words/clip-text';
import type { Clip } from './clip';

/**
 * Master frames, at the slowest rate of a clip's masters, that its cut may keep so that the clip lasts at most so long
 * on each of its canvases, its end card among it.
 * @returns at least 1.
 */
export function maxKeptFrames(
  { cut, canvases, text }: Clip,
  masters: MasterLengths,
  seconds: number,
): number {
  const slow = slowestRate(cut, masters);
  const kept = canvases.map(({ rate }) => {
    const room = countFramesWithin(seconds, rate) - cardFrames(text?.card, rate);
    return shownFrame(Math.max(0, room), slow, rate);
  });
  return Math.max(1, Math.min(...kept));
}
