import { parseFingerprint } from '../master/fingerprint';
import { activeCanvas } from '../job/clip';
import { applyCommand } from '../job/commands/commands';
import { activeClip } from '../job/job';
import { keep, testJob, testRange } from '../job/test-job';
import { createPassLookup, testPass } from '../job/test-pass';
import { findTarget } from '../outlets/outlets';
import { SHIPPED_SHEETS } from '../outlets/shipped';
import { NO_CAPTIONS } from '../words/captions';
import { NO_TEXT } from '../words/clip-text';
import { sizeKey, sizeTrial, findTriedSize } from './size-trial';

const known = (bitsBySecond: number[]) => createPassLookup({ ...testPass(), bitsBySecond });

describe('a trial of the size', () => {
  it('waits for the look at the masters', () => {
    expect(sizeTrial(testJob(), createPassLookup(null))).toBeNull();
  });

  it('encodes a short clip whole, without its sound', () => {
    const job = testJob();
    const short = { ...job, edit: applyCommand(job.edit, keep(0, 48)) };
    const trial = sizeTrial(short, known([1e6, 9e6]));
    expect(trial?.plans.map(({ frames }) => frames)).toEqual([48]);
    expect(trial?.plans[0]?.sources.every(({ audio }) => audio === null)).toBe(true);
    // 250 kB in 48 frames of 24000/1001.
    expect(trial?.bitsOf([250_000])).toBeCloseTo((250_000 * 8) / ((48 * 1001) / 24000), 3);
  });

  it('encodes two pieces of an even clip, and six of an uneven one', () => {
    const job = testJob({ frames: 1000 });
    expect(sizeTrial(job, known(Array(42).fill(5e6)))?.plans).toHaveLength(2);
    const uneven = sizeTrial(job, known(Array.from({ length: 42 }, (_, i) => (i + 1) * 1e5)));
    expect(uneven?.plans).toHaveLength(6);
    for (const plan of uneven?.plans ?? []) expect(plan.frames).toBeLessThanOrEqual(60);
  });

  it('is of the words too: a still card where the clip is encoded whole, captions in the pieces that they are over', () => {
    const job = testJob({ frames: 1000 });
    const card = { seconds: 1, colour: '#204060' };
    const cue = { id: 'c', text: 'Kites', spans: [testRange(0, 1000)] };
    const text = { ...NO_TEXT, card, captions: { ...NO_CAPTIONS, cues: [cue] } };
    const [clip] = job.edit.clips;
    const worded = { ...job, edit: { ...job.edit, clips: [{ ...clip!, text }] } };
    const pieces = sizeTrial(worded, known(Array(42).fill(5e6)))?.plans ?? [];
    expect(pieces.map(({ overlays, cardFrames }) => [overlays.length, cardFrames])).toEqual([
      [1, 0],
      [1, 0],
    ]);
    const short = { ...worded, edit: applyCommand(worded.edit, keep(0, 48)) };
    expect(sizeTrial(short, known([1e6, 9e6]))?.plans.map(({ frames }) => frames)).toEqual([48 + 24]);
  });

  it('is another where another rate is asked for, and the same where only words change', () => {
    const job = testJob();
    const words = applyCommand(job.edit, {
      type: 'set-words',
      words: { ...job.edit.clips[0]!.words, title: 'Another' },
    });
    const bits = applyCommand(job.edit, { type: 'set-video-bits', bits: 3_000_000 });
    expect(sizeKey({ ...job, edit: words })).toBe(sizeKey(job));
    expect(sizeKey({ ...job, edit: bits })).not.toBe(sizeKey(job));
    const masters = job.masters.map((master) => ({
      ...master,
      fingerprint: parseFingerprint('b'.repeat(64)),
    }));
    expect(sizeKey({ ...job, masters })).not.toBe(sizeKey(job));
  });

  it('counts for the canvas that it was made of, while that is the same', () => {
    const job = testJob();
    const clip = activeClip(job.edit);
    const canvas = activeCanvas(clip);
    const subject = { work: job, clip, canvas, target: findTarget(SHIPPED_SHEETS, canvas) };
    const tried = { clip: clip.id, canvas: canvas.id, key: sizeKey(job), bits: 3e6 };
    expect(findTriedSize([], subject)).toBeNull();
    expect(findTriedSize([{ ...tried, key: 'of before' }, tried], subject)).toBe(3e6);
    expect(findTriedSize([{ ...tried, canvas: 'another' }], subject)).toBeNull();
    const shorter = { ...job, edit: applyCommand(job.edit, keep(0, 48)) };
    expect(findTriedSize([tried], { ...subject, work: shorter })).toBeNull();
  });
});
