import { type FrameRate, scaleFrames } from '../time/frame-rate';
import { type RateChange, toRateChange } from './retime';
import { parseFingerprint } from '../master/fingerprint';
import type { Range } from '../cut/cut';
import { type Framing, plainFraming, PLAIN_VALUES, type Values } from '../framing/framing';
import type { Command } from './commands/commands';
import { type Job, newJob } from './job';
import type { Shot } from '../cut/shot';
import { MAIN_TRACK } from '../layout/pane';
import type { AudioFacts, Master } from '../master/master';
import { chooseCanvasSize, findPlacement } from '../outlets/outlets';
import { SHIPPED_SHEETS } from '../outlets/shipped';

/** The id of that master. */
export const TEST_MASTER = 'a'.repeat(12);

/** Its sound. */
export const TEST_SOUND: AudioFacts = {
  codec: 'aac',
  sampleRate: 48000,
  channels: 2,
  bits: 128_000,
  decodable: true,
};

/** A range of it. */
export const testRange = (first: number, out: number): Range => ({ master: TEST_MASTER, in: first, out });

/** A shot of it. */
export const testShot = (id: string, first: number, out: number): Shot => ({
  id,
  master: TEST_MASTER,
  in: first,
  out,
  start: null,
  live: null,
});

/** Keeps one range of it. */
export const keep = (first: number, out: number): Command => ({
  type: 'set-cut',
  act: 'trim',
  cut: [testRange(first, out)],
});

/** A change of the rate of a master that has so many frames before it. */
export function testRateChange(before: FrameRate, after: FrameRate, frames = 984): RateChange {
  const toRate = (rate: FrameRate) => ({ rate, frames: scaleFrames(frames, before, rate) });
  return toRateChange(toRate(before), toRate(after));
}

/** A master for tests: 1920×1080 at 24000/1001 with stereo sound. */
export function testMaster(change: Partial<Master> = {}): Master {
  const master: Master = {
    id: TEST_MASTER,
    fingerprint: parseFingerprint('a'.repeat(64)),
    fileName: 'edit.mp4',
    bytes: 1_000_000,
    container: 'MP4',
    picture: { width: 1920, height: 1080 },
    coded: { width: 1920, height: 1080 },
    pixelAspect: { num: 1, den: 1 },
    rotation: 0,
    flip: false,
    rate: { num: 24000, den: 1001 },
    constantRate: true,
    frameTimes: { least: 1001 / 24000, mean: 1001 / 24000, greatest: 1001 / 24000 },
    repeated: 0,
    dropped: 0,
    frames: 984,
    startSeconds: 0,
    video: { codec: 'avc', codecString: 'avc1.640028', bits: 12_000_000, depth: 8, interlaced: false },
    colour: { matrix: 'bt709', primaries: 'bt709', transfer: 'bt709', fullRange: false },
    audio: TEST_SOUND,
    audioTracks: [TEST_SOUND],
    soundTrack: 0,
    ...change,
  };
  // A test that changes the picture alone means an upright one of that size.
  return change.picture && !change.coded ? { ...master, coded: change.picture } : master;
}

/** A job on that master, as it is when it is new. */
export function testJob(change: Partial<Master> = {}): Job {
  return newJob({
    id: 'job-1',
    title: 'Edit',
    now: '2026-11-01T10:00:00.000Z',
    master: testMaster(change),
    sheets: SHIPPED_SHEETS,
  });
}

/** Chooses a placement of the sheets that ship. */
export function choose(placement: string): Command {
  const target = findPlacement(SHIPPED_SHEETS, placement);
  if (!target) throw new RangeError(`no sheet that ships has ${placement}`);
  return { type: 'choose-placement', placement, size: chooseCanvasSize(target) };
}

/** A framing of the one shot that such a job has, with a window of one place. */
export function testFraming(values: Partial<Values> = {}, change: Partial<Framing> = {}): Framing {
  const plain = plainFraming(`${TEST_MASTER}-1`, MAIN_TRACK, 0);
  return { ...plain, keyframes: [{ ...PLAIN_VALUES, frame: 0, ease: null, ...values }], ...change };
}

/** Sets that framing on all canvases. */
export const createFramingCommand = (
  values: Partial<Values> = {},
  change: Partial<Framing> = {},
): Command => ({
  type: 'set-framings',
  act: 'move',
  owner: 'shared',
  framings: [testFraming(values, change)],
});
