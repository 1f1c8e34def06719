import { BufferTarget, Mp4OutputFormat, Output, VideoSample, VideoSampleSource, Quality } from 'mediabunny';
import { HEIGHT, WIDTH } from './paint';
import { shotStarts } from './shots';

/** Far above what the film needs, so that the intermediate loses nothing to be seen. */
const INTERMEDIATE_BITS = 60_000_000;

/** RGBA to limited-range BT.709 4:2:0 (ITU-R BT.709-6 items 3.2 to 3.5), chroma averaged over its four pixels. */
function toI420(rgba: Uint8ClampedArray, out: Uint8Array): void {
  const half = WIDTH / 2;
  const uAt = WIDTH * HEIGHT;
  const vAt = uAt + half * (HEIGHT / 2);
  for (let y = 0; y < HEIGHT; y += 2) {
    for (let x = 0; x < WIDTH; x += 2) {
      let red = 0;
      let green = 0;
      let blue = 0;
      for (let i = 0; i < 4; i++) {
        const offset = (y + (i >> 1)) * WIDTH + x + (i & 1);
        const r = rgba[offset * 4] as number;
        const g = rgba[offset * 4 + 1] as number;
        const b = rgba[offset * 4 + 2] as number;
        out[offset] = 16.5 + (219 / 255) * (0.2126 * r + 0.7152 * g + 0.0722 * b);
        red += r;
        green += g;
        blue += b;
      }
      const luma = 0.2126 * red + 0.7152 * green + 0.0722 * blue;
      const c = (y / 2) * half + x / 2;
      out[uAt + c] = 128.5 + ((224 / 255) * (blue - luma)) / (4 * 1.8556);
      out[vAt + c] = 128.5 + ((224 / 255) * (red - luma)) / (4 * 1.5748);
    }
  }
}

/** Draws the whole film and sends it, barely compressed, to the maker. */
async function render(): Promise<void> {
  const canvas = new OffscreenCanvas(WIDTH, HEIGHT);
  const ink = canvas.getContext('2d', { willReadFrequently: true, alpha: false });
  if (!ink) throw new Error('no 2D canvas');
  const output = new Output({ format: new Mp4OutputFormat(), target: new BufferTarget() });
  const source = new VideoSampleSource({
    codec: 'avc',
    quality: new Quality({ bitrate: INTERMEDIATE_BITS }),
  });
  output.addVideoTrack(source, { frameRate: 24000 / 1001 });
  await output.start();
  const planes = new Uint8Array((WIDTH * HEIGHT * 3) / 2);
  let frame = 0;
  for (const { shot } of shotStarts()) {
    for (let n = 0; n < shot.frames; n++, frame++) {
      shot.draw(ink, (n * 1001) / 24000);
      toI420(ink.getImageData(0, 0, WIDTH, HEIGHT).data, planes);
      const sample = new VideoSample(planes, {
        format: 'I420',
        codedWidth: WIDTH,
        codedHeight: HEIGHT,
        timestamp: (frame * 1001) / 24000,
        duration: 1001 / 24000,
        colorSpace: { primaries: 'bt709', transfer: 'bt709', matrix: 'bt709', fullRange: false },
      });
      await source.add(sample, { keyFrame: n === 0 });
      sample.close();
    }
    console.log(shot.name);
  }
  await output.finalize();
  await fetch('/film', { method: 'POST', body: output.target.buffer });
}

void render();
