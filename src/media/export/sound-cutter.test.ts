import { AudioSample, type AudioSampleSource } from 'mediabunny';
import { canvasOf } from '@core/layout/canvas';
import { planOf } from '@core/render/plan';
import { sourceOf } from '@core/master/source';
import { testMaster, testRange, TEST_SOUND } from '@core/job/test-job';
import type { MasterReader } from '../read/master-reader';
import { cutSound } from './sound-cutter';

const RATE = 48000;
/** Numbers are told as samples of this share of full scale: well under the ceiling, and exact. */
const UNIT = 2 ** 21;
const FILM = { num: 24000, den: 1001 };
/** Samples of an encoder's delay, by which the track starts early. */
const DELAY = 1024;

/** A master's sound whose every sample says its own number; `holes` are left out. */
function numberedSound(
  from: number,
  to: number,
  piece: number,
  holes: [number, number][] = [],
): AudioSample[] {
  const samples: AudioSample[] = [];
  for (let sample = from; sample < to; sample += piece) {
    if (holes.some(([start, end]) => sample >= start && sample < end)) continue;
    const data = Float32Array.from(
      { length: Math.min(piece, to - sample) },
      (_, i) => (sample + i + 1) / UNIT,
    );
    samples.push(
      new AudioSample({
        data,
        format: 'f32',
        numberOfChannels: 1,
        sampleRate: RATE,
        timestamp: sample / RATE,
      }),
    );
  }
  return samples;
}

/** Everything that is handed to the encoder, as one row of numbers from the track's start. */
async function cut(ranges: [from: number, to: number][], sound: AudioSample[]): Promise<number[]> {
  const heard: number[] = [];
  const target = {
    add(sample: AudioSample) {
      const plane = new Float32Array(sample.numberOfFrames);
      sample.copyTo(plane, { planeIndex: 0, format: 'f32-planar' });
      expect(Math.round(sample.timestamp * RATE)).toBe(heard.length - DELAY);
      heard.push(...Array.from(plane, (value) => value * UNIT));
      return Promise.resolve();
    },
  } as unknown as AudioSampleSource;
  const source = sourceOf(testMaster({ audio: { ...TEST_SOUND, sampleRate: RATE, channels: 1 } }));
  async function* between(from: number, to: number) {
    // As a decoder does: whole pieces that touch the range.
    const [start, end] = [(from * 1001) / 24000, (to * 1001) / 24000];
    for (const sample of sound)
      if (sample.timestamp + sample.duration > start && sample.timestamp < end) yield sample.clone();
  }
  const reader = {
    source,
    sound: between,
    soundSeconds: (sample: AudioSample) => sample.timestamp,
  } as unknown as MasterReader;
  const canvas = canvasOf('x/y', { width: 16, height: 16 }, FILM, 'c');
  const cutRanges = ranges.map(([from, to]) => testRange(from, to));
  const plan = planOf(canvas, { cut: cutRanges, shots: [], framings: [], sources: [source] });
  const facts = { sampleRate: RATE, channels: 1 };
  const sounds = cutSound(() => Promise.resolve(reader), plan, facts, target);
  // The sound is pulled to its end.
  while (!(await sounds.next()).done);
  return heard;
}

describe('sound', () => {
  it('is cut to the sample: frame n starts at sample 2002 n', async () => {
    const heard = await cut([[10, 13]], numberedSound(0, 60000, 1024));
    expect(heard).toHaveLength(3 * 2002);
    expect(heard[0]).toBe(20021);
    expect(heard[heard.length - 1]).toBe(20020 + 6006);
  });

  it('of several ranges follows the frames without a gap', async () => {
    const heard = await cut(
      [
        [20, 22],
        [3, 4],
      ],
      numberedSound(0, 60000, 1000),
    );
    expect(heard).toHaveLength(3 * 2002);
    expect(heard[4003]).toBe(22 * 2002);
    // The one passes into the other for 5 ms, and is then itself, to the sample.
    const join = heard.slice(4004, 4244);
    expect(join.every((value, i) => value < 44046 + i && value > 6006 + i)).toBe(true);
    expect(heard[4244]).toBe(3 * 2002 + 241);
  });

  it('that starts late, ends early or has holes is silent there, and stays in step', async () => {
    const heard = await cut([[0, 10]], numberedSound(5000, 15000, 1000, [[8000, 10000]]));
    expect(heard).toHaveLength(20020);
    heard.forEach((value, i) => {
      const silent = i < 5000 || i >= 15000 || (i >= 8000 && i < 10000);
      if (value !== (silent ? 0 : i + 1)) throw new Error(`sample ${i} is ${value}`);
    });
  });
});
