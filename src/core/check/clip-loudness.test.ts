import { execFileSync, spawnSync } from 'node:child_process';
import { testMaster } from '../job/test-job';
import { testPass } from '../job/test-pass';
import { NO_REPAIRS } from '../master/repairs';
import { sourceOf } from '../master/source';
import { LoudnessMeter } from '../sound/loudness';
import { frameAt } from '../time/frame-rate';
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

// Judged from outside: ffmpeg's ebur128 filter on the same piece.
it.each([
  [0, 20],
  [5, 15],
  [18, 41],
])('the loudness of a piece from %d s to %d s is within 1 LU of what ffmpeg measures', (from, to) => {
  const cut = ['-ss', String(from), '-t', String(to - from)];
  const args = ['-hide_banner', '-nostats', ...cut, '-i', FILE, '-af', 'ebur128', '-f', 'null', '-'];
  const { stderr } = spawnSync('ffmpeg', args, { encoding: 'utf8', maxBuffer: 1 << 28 });
  const [, outside] = /I:\s*(-?[\d.]+) LUFS/.exec(stderr.slice(stderr.lastIndexOf('Summary:'))) ?? [];
  const master = testMaster();
  const source = sourceOf(master);
  const sound = {
    ...{ integrated: meter.integrated(), loudest: null, truePeak: null, samplePeak: null, pauses: [] },
    shortTerm: meter.shortTerm(),
  };
  const look = { master, repairs: NO_REPAIRS, source, shots: [], pass: testPass({ sound }) };
  const range = { master: master.id, in: frameAt(from, source.rate), out: frameAt(to, source.rate) };
  const inside = clipLoudness([range], [look]);
  expect(Math.abs((inside ?? 0) - Number(outside))).toBeLessThanOrEqual(1);
});
