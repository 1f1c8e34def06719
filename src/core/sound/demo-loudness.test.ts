import { execFileSync, spawnSync } from 'node:child_process';
import { LoudnessMeter } from './loudness';
import { TruePeakMeter } from './true-peak';

const FILE = 'public/demo/kite-day.mp4';

// Judged from outside: ffmpeg's ebur128 filter on the same sound.
it('measures the demo master as ffmpeg does: within 0.1 LU, and 0.3 dB of true peak', () => {
  const args = ['-hide_banner', '-nostats', '-i', FILE, '-af', 'ebur128=peak=true', '-f', 'null', '-'];
  const { stderr } = spawnSync('ffmpeg', args, { encoding: 'utf8', maxBuffer: 1 << 28 });
  const summary = stderr.slice(stderr.lastIndexOf('Summary:'));
  const figure = (name: RegExp) => Number(name.exec(summary)?.[1]);
  const raw = execFileSync('ffmpeg', ['-v', 'error', '-i', FILE, '-vn', '-f', 'f32le', '-ac', '2', '-'], {
    maxBuffer: 1 << 28,
  });
  const samples = new Float32Array(raw.buffer.slice(raw.byteOffset, raw.byteOffset + raw.byteLength));
  const loudness = new LoudnessMeter(48000, 2);
  const peaks = new TruePeakMeter();
  for (let sample = 0; sample < samples.length; sample += 8192) {
    const piece = samples.subarray(sample, sample + 8192);
    const planes = [0, 1].map((channel) => piece.filter((_, i) => i % 2 === channel));
    loudness.push(planes);
    peaks.push(planes);
  }
  expect(Math.abs(loudness.integrated() - figure(/I:\s*(-?[\d.]+) LUFS/))).toBeLessThanOrEqual(0.1);
  expect(Math.abs(peaks.finish().truePeak - figure(/Peak:\s*(-?[\d.]+) dBFS/))).toBeLessThanOrEqual(0.3);
});
