import { execFileSync, spawnSync } from 'node:child_process';
import { TEST_SOUND, testMaster } from '../job/test-job';
import { testPass } from '../job/test-pass';
import { NO_REPAIRS } from '../master/repairs';
import { toSource } from '../master/source';
import { LoudnessMeter, toLoudness } from '../sound/loudness';
import { toFrame } from '../time/frame-rate';
import { clipLoudness } from './clip-loudness';

const FILE = 'public/demo/kite-day.mp4';

/** The demo master's sound as a pass measures it. */
function measured(): LoudnessMeter {
  const args = ['-v', 'error', '-i', FILE, '-vn', '-f', 'f32le', '-ac', '2', '-'];
  const raw = execFileSync('ffmpeg', args, { maxBuffer: 1 << 28 });
  const samples = new Float32Array(raw.buffer.slice(raw.byteOffset, raw.byteOffset + raw.byteLength));
  const meter = new LoudnessMeter(48000, 2);
  for (let at = 0; at < samples.length; at += 8192) {
    const piece = samples.subarray(at, at + 8192);
    meter.push([0, 1].map((channel) => piece.filter((_, i) => i % 2 === channel)));
  }
  return meter;
}

let meter: LoudnessMeter;
beforeAll(() => {
  meter = measured();
});

/** Integrated loudness of pieces of the demo one after another, by ffmpeg's ebur128 filter (from outside). */
function loudnessOutside(pieces: readonly [from: number, to: number][]): number {
  const trims = pieces.map(([from, to], n) => `[0:a]atrim=${from}:${to},asetpts=PTS-STARTPTS[p${n}]`);
  const joined = `${pieces.map((_, n) => `[p${n}]`).join('')}concat=n=${pieces.length}:v=0:a=1,ebur128[out]`;
  const graph = [...trims, joined].join(';');
  const args = [
    '-hide_banner',
    '-nostats',
    '-i',
    FILE,
    '-filter_complex',
    graph,
    '-map',
    '[out]',
    '-f',
    'null',
    '-',
  ];
  const { stderr } = spawnSync('ffmpeg', args, { encoding: 'utf8', maxBuffer: 1 << 28 });
  return Number(/I:\s*(-?[\d.]+) LUFS/.exec(stderr.slice(stderr.lastIndexOf('Summary:')))?.[1]);
}

function loudnessHere(
  pieces: readonly [from: number, to: number][],
  audio = TEST_SOUND,
  channels = 2,
): number {
  const master = testMaster({ audio });
  const source = toSource(master);
  const sound = {
    ...{ integrated: meter.integrated(), loudest: null, truePeak: null, samplePeak: null, pauses: [] },
    shortTerm: [],
    steps: meter.steps().map(toLoudness),
  };
  const look = { master, repairs: NO_REPAIRS, source, shots: [], pass: testPass({ sound }) };
  const cut = pieces.map(([from, to]) => ({
    ...{ master: master.id, in: toFrame(from, source.rate), out: toFrame(to, source.rate) },
  }));
  return clipLoudness(cut, [look], channels) ?? NaN;
}

it.each<[string, [number, number][]]>([
  ['from the start', [[0, 20]]],
  ['from the middle', [[5, 15]]],
  ['to the end', [[18, 41]]],
  ['made of shots of half a second', Array.from({ length: 20 }, (_, n) => [2 * n, 2 * n + 0.5])],
  [
    'made of shots of a second, in another order',
    Array.from({ length: 12 }, (_, n) => [36 - 3 * n, 37 - 3 * n]),
  ],
  ['of one short shot', [[10, 11.2]]],
])('the loudness of a clip %s is within half a LU of what ffmpeg measures', (_what, pieces) => {
  expect(Math.abs(loudnessHere(pieces) - loudnessOutside(pieces))).toBeLessThanOrEqual(0.5);
});

it('one channel is as much louder on two as two alike are', () => {
  const mono = { ...TEST_SOUND, channels: 1 };
  for (const pieces of [[[0, 41]], [[5, 15]]] as [number, number][][]) {
    const louder = loudnessHere(pieces, mono, 2) - loudnessHere(pieces, mono, 1);
    expect(louder).toBeCloseTo(3.01, 2);
  }
});
