import { testJob, testMaster } from '../job/test-job';
import { toJobEncodeSettings, planOfJob } from '../check/check';
import type { PlanSegment } from '../render/plan';
import {
  blackBorders,
  plannedBorders,
  findSharedBorders,
  subtractPlannedBorders,
  widerBorders,
} from './borders';
import { NO_BORDERS } from '../picture/borders';
import { toRequestedFacts, toFoundFacts, createProof } from './proof';
import { SHIPPED_SHEETS } from '../outlets/shipped';

/** A grey picture of 40×60 with black borders. */
function barred(
  left: number,
  top: number,
  right: number,
  bottom: number,
  grey = 120,
  black = 16,
): Uint8Array {
  const luma = new Uint8Array(48 * 60).fill(black);
  for (let y = top; y < 60 - bottom; y++) luma.fill(grey, y * 48 + left, y * 48 + 40 - right);
  return luma;
}
const bordersOf = (luma: Uint8Array) => blackBorders(luma, 48, 40, 60);

describe('black borders', () => {
  it.each([
    [0, 0, 0, 0],
    [0, 13, 0, 12],
    [4, 0, 6, 0],
    [1, 2, 3, 4],
  ])('of %i %i %i %i are found', (left, top, right, bottom) => {
    expect(bordersOf(barred(left, top, right, bottom))).toEqual({ left, top, right, bottom });
  });

  it('are not seen in a dark picture that is not black, nor told of a black one', () => {
    expect(bordersOf(barred(0, 0, 0, 0, 30))).toEqual(NO_BORDERS);
    expect(bordersOf(barred(0, 0, 0, 0, 16))).toBeNull();
  });

  it('are not a dark doorway at the edge of a shot, nor grain on black', () => {
    expect(bordersOf(barred(0, 12, 0, 0, 120, 22))).toEqual(NO_BORDERS);
    const grainy = barred(0, 12, 0, 0);
    for (let i = 0; i < 48 * 12; i += 7) grainy[i] = 34;
    expect(bordersOf(grainy)).toEqual(NO_BORDERS);
  });

  it('that a fitted picture leaves on purpose are none', () => {
    const fitted = {
      panes: [{ picture: { x: 0, y: 656, width: 1080, height: 608 } }],
    } as unknown as PlanSegment;
    const planned = plannedBorders(fitted, { width: 1080, height: 1920 });
    expect(planned).toEqual({ left: 0, top: 656, right: 0, bottom: 656 });
    expect(subtractPlannedBorders({ left: 0, top: 655, right: 0, bottom: 656 }, planned)).toEqual(NO_BORDERS);
    expect(subtractPlannedBorders({ left: 9, top: 700, right: 0, bottom: 0 }, planned)).toEqual({
      left: 9,
      top: 700,
      right: 0,
      bottom: 0,
    });
  });

  it('of a shot are what all its frames share; of a clip, the widest of its shots', () => {
    const letterbox = bordersOf(barred(0, 10, 0, 10));
    expect(findSharedBorders(letterbox, bordersOf(barred(0, 0, 0, 20)))).toEqual({
      left: 0,
      top: 0,
      right: 0,
      bottom: 10,
    });
    expect(findSharedBorders(null, letterbox)).toEqual(letterbox);
    expect(widerBorders(NO_BORDERS, { left: 0, top: 2, right: 0, bottom: 0 })).toEqual({
      left: 0,
      top: 2,
      right: 0,
      bottom: 0,
    });
  });
});

describe('proof', () => {
  const job = testJob();
  const plan = planOfJob(job, SHIPPED_SHEETS);
  const asked = toRequestedFacts(plan, toJobEncodeSettings(job, { sheets: SHIPPED_SHEETS }));
  const made = testMaster({ picture: { width: 1080, height: 1920 } });

  it('passes a file that is what was asked', () => {
    expect(createProof(asked, toFoundFacts(made), 984, NO_BORDERS).pass).toBe(true);
  });

  it('passes a lossless copy in its own profile, and in no other', () => {
    const making = toJobEncodeSettings(job, { sheets: SHIPPED_SHEETS });
    const lossless = toRequestedFacts(plan, {
      ...making,
      picture: { ...making.picture!, kind: 'lossless' },
      sound: { ...making.sound!, codec: 'flac' },
    });
    const audio = { ...made.audio!, codec: 'flac' };
    const found = (codecString: string) =>
      toFoundFacts({ ...made, audio, video: { ...made.video, codecString } });
    expect(createProof(lossless, found('avc1.f4001f'), 984, NO_BORDERS).pass).toBe(true);
    expect(createProof(lossless, found('avc1.64001f'), 984, NO_BORDERS).pass).toBe(false);
  });

  it.each<[string, Parameters<typeof testMaster>[0]]>([
    ['Size', { picture: { width: 1920, height: 1080 } }],
    ['Frames', { picture: made.picture, frames: 983 }],
    ['Frame rate', { picture: made.picture, rate: { num: 24, den: 1 } }],
    ['Picture codec', { picture: made.picture, video: { ...made.video, codecString: 'avc1.42001f' } }],
    ['Colour', { picture: made.picture, colour: { ...made.colour, fullRange: true } }],
    ['Sound', { picture: made.picture, audio: null }],
  ])('fails on %s alone', (what, change) => {
    const proof = createProof(asked, toFoundFacts(testMaster(change)), 984, NO_BORDERS);
    expect(proof.pass).toBe(false);
    expect(proof.facts.filter((fact) => !fact.ok).map((fact) => fact.what)).toEqual([what]);
  });

  it('holds a size that was to be landed on to 3 %, over and under', () => {
    const making = toJobEncodeSettings(job, { sheets: SHIPPED_SHEETS });
    const landing = toRequestedFacts(plan, {
      ...making,
      picture: { ...making.picture!, kind: 'size', bytes: 4e6 },
    });
    const proofAt = (bytes: number) =>
      createProof(landing, toFoundFacts(testMaster({ picture: made.picture, bytes }), 4e6), 984, NO_BORDERS);
    for (const bytes of [3.89e6, 4e6, 4.11e6]) expect(proofAt(bytes).pass).toBe(true);
    for (const bytes of [3.87e6, 4.13e6]) expect(proofAt(bytes).pass).toBe(false);
    expect(proofAt(14.2e6).facts.find(({ ok }) => !ok)).toEqual({
      what: 'File size',
      asked: '4.0 MB, within 3 %',
      found: '14.2 MB',
      ok: false,
    });
  });

  it('fails on a border', () => {
    expect(createProof(asked, toFoundFacts(made), 984, { ...NO_BORDERS, bottom: 2 }).pass).toBe(false);
  });
});
