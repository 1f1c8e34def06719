import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { VideoSampleSink } from 'mediabunny';
import { openMedia } from '../../src/render/open-media';
import { encodeFilm } from '../../tests/encode-film';
import { packetsOf } from '../../tests/make-clip';
import { decodeWithFfmpeg } from './decoders';

const folder = mkdtempSync(path.join(tmpdir(), 'decoders-'));

/** A second of 1080p30 with grain, as heavy as a camera's. */
function heavyFilm(...codec: string[]): string {
  const file = path.join(folder, 'heavy.mp4');
  const grain = ['-vf', 'fps=30,noise=alls=7:allf=t', '-an', '-pix_fmt', 'yuv420p'];
  const rate = ['-b:v', '18M', '-maxrate', '30M', '-bufsize', '36M'];
  return encodeFilm(file, [
    ...['-i', 'public/demo/kite-day.mp4', '-t', '1'],
    ...[...grain, ...codec, ...rate],
  ]);
}

describe('decoding with ffmpeg', () => {
  beforeAll(decodeWithFfmpeg);

  it.each([
    ['two key frames', ['-c:v', 'libx264', '-preset', 'veryfast', '-g', '30', '-bf', '3']],
    ['one, and a pyramid', ['-c:v', 'libx264', '-preset', 'veryfast', '-g', '250', '-bf', '8']],
    ['HEVC', ['-c:v', 'libx265', '-preset', 'ultrafast', '-x265-params', 'log-level=error']],
  ])('gives every frame of a heavy film, in order: %s', async (_, codec) => {
    const file = heavyFilm(...codec);
    const input = openMedia(file);
    const track = await input.getPrimaryVideoTrack();
    const times: number[] = [];
    for await (const sample of new VideoSampleSink(track!).samples()) {
      times.push(sample.timestamp);
      sample.close();
    }
    const wanted = packetsOf(file).map(({ time }) => time);
    expect(times).toHaveLength(wanted.length);
    wanted.sort((a, b) => a - b).forEach((time, n) => expect(Math.abs(times[n]! - time)).toBeLessThan(0.001));
  });
});
