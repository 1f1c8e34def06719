import { AudioSample } from 'mediabunny';
import { makeCanvas } from '@core/layout/canvas';
import { createRenderPlan } from '@core/render/plan';
import { rangeStarts } from '@core/cut/cut';
import { toSource } from '@core/master/source';
import { type FrameRate, countSamplesBefore, toSeconds } from '@core/time/frame-rate';
import { testMaster, testRange, TEST_SOUND } from '@core/job/test-job';
import { CEILING } from '@core/sound/limiter';
import type { FilmReader } from './film-reader';
import { clipSound } from './clip-sound';

const RATE = 48000;
/** Numbers are told as samples of this share of full scale: well under the ceiling, and exact. */
const UNIT = 2 ** 23;
const FILM = { num: 24000, den: 1001 };

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

/** Everything that is handed to the encoder, as one row of numbers. */
async function cut(
  ranges: [from: number, to: number][],
  sound: AudioSample[],
  { from = FILM, to = FILM, most = Infinity }: { from?: FrameRate; to?: FrameRate; most?: number } = {},
): Promise<number[]> {
  const heard: number[] = [];
  const taken: AudioSample[] = [];
  let open = 0;
  const source = toSource(
    testMaster({ rate: from, frames: 100_000, audio: { ...TEST_SOUND, sampleRate: RATE, channels: 1 } }),
  );
  async function* between(first: number, out: number) {
    // As a decoder does: whole pieces that touch the range.
    const [start, end] = [toSeconds(first, from), toSeconds(out, from)];
    open += 1;
    try {
      for (const sample of sound)
        if (sample.timestamp + sample.duration > start && sample.timestamp < end) {
          const own = sample.clone();
          taken.push(own);
          yield own;
        }
    } finally {
      open -= 1;
    }
  }
  const reader = {
    source,
    sound: between,
    soundSeconds: (sample: AudioSample) => sample.timestamp,
  } as unknown as FilmReader;
  const canvas = makeCanvas(null, { width: 16, height: 16 }, to, 'c');
  const cutRanges = ranges.map(([first, out]) => testRange(first, out));
  const plan = createRenderPlan(canvas, { cut: cutRanges, shots: [], framings: [], sources: [source] });
  const wanted = { sampleRate: RATE, channels: 1, ceiling: CEILING, gain: 1 };
  for await (const [plane] of clipSound(() => Promise.resolve(reader), plan, wanted)) {
    heard.push(...Array.from(plane ?? [], (value) => value * UNIT));
    if (heard.length >= most) break;
  }
  // A decoder that is read from holds samples until it is let go.
  expect(open).toBe(0);
  // Every sample that is taken is closed: a closed one gives nothing away.
  for (const sample of taken) expect(() => sample.clone()).toThrow();
  for (const sample of sound) sample.close();
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

  it('lets its decoder go where nobody listens any longer', async () => {
    const heard = await cut([[0, 20]], numberedSound(0, 60000, 1000), { most: 5000 });
    expect(heard.length).toBeLessThan(20 * 2002);
  });

  it('that starts late, ends early or has holes is silent there, and stays in step', async () => {
    const heard = await cut([[0, 10]], numberedSound(5000, 15000, 1000, [[8000, 10000]]));
    expect(heard).toHaveLength(20020);
    heard.forEach((value, i) => {
      const silent = i < 5000 || i >= 15000 || (i >= 8000 && i < 10000);
      if (value !== (silent ? 0 : i + 1)) throw new Error(`sample ${i} is ${value}`);
    });
  });

  it.each<[string, FrameRate, FrameRate]>([
    ['50 to 25', { num: 50, den: 1 }, { num: 25, den: 1 }],
    ['24 to 25', { num: 24, den: 1 }, { num: 25, den: 1 }],
    ['23.976 to 29.97', FILM, { num: 30000, den: 1001 }],
    ['25 to 60', { num: 25, den: 1 }, { num: 60, den: 1 }],
    ['60 to 23.976', { num: 60, den: 1 }, FILM],
  ])('has no hole at any of 100 cuts, and stays in step to the sample: %s', async (_, from, to) => {
    const ranges = Array.from({ length: 101 }, (_, i): [number, number] => [i * 9 + 1, i * 9 + 8 + (i % 3)]);
    const heard = await cut(ranges, numberedSound(0, 2_000_000, 4096), { from, to });
    const lengths = (): { rate: FrameRate; frames: number } => ({ rate: from, frames: 100_000 });
    const starts = rangeStarts(
      ranges.map(([first, out]) => testRange(first, out)),
      lengths,
      to,
    );
    expect(heard).toHaveLength(countSamplesBefore(starts[101]!, to, RATE));
    expect(heard.every((value) => value > 0)).toBe(true);
    let run = { begin: 0, first: 0 };
    for (const [i, [first]] of ranges.entries()) {
      const begin = countSamplesBefore(starts[i]!, to, RATE);
      const end = countSamplesBefore(starts[i + 1]!, to, RATE);
      // Where nothing was removed the sound goes on as it is.
      if (ranges[i - 1]?.[1] !== first) run = { begin, first };
      // Past the join each sample is the master's own, up to the end of the picture.
      for (const sample of [begin + 240, end - 1]) {
        expect(heard[sample]).toBe(countSamplesBefore(run.first, from, RATE) + sample - run.begin + 1);
      }
    }
  });
});
