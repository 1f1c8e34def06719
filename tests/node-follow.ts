import {
  DETECT_EVERY,
  type Sample,
  type Sighting,
  sampleStep,
  toSubjectKind,
} from '../src/core/follow/evidence';
import { Sampler, smallPicture } from '../src/core/follow/sampler';
import { type FoundThing, THINGS } from './node-detector';

/** Size of the pictures in which movement is looked for. */
const SMALL = { width: 320, height: 180 };

/** Pictures as the detector takes them: red, green, blue and 255, 0…255. */
type Pictures = (seconds: number) => Uint8ClampedArray;

/** Gathers the evidence that the app would of a film of so many frames: detectors and movement together. */
export async function gathered(
  pictures: Pictures,
  { frames, rate }: { frames: number; rate: number },
  detect: (rgb: Float32Array) => Promise<FoundThing[]>,
): Promise<Sample[]> {
  const sampler = new Sampler();
  const made: Sample[] = [];
  const step = sampleStep(rate);
  for (let count = 0; count * step < frames; count++) {
    const pixels = pictures((count * step) / rate);
    const found = count % DETECT_EVERY === 0 ? await detect(letterboxedPixels(pixels)) : null;
    const detected = found?.map(({ of, confidence, place }): Omit<Sighting, 'look'> => ({
      ...{ kind: toSubjectKind(of), confidence, box: place },
    }));
    const small = smallPicture(shrinkText(pixels), SMALL.width, SMALL.height);
    made.push(...sampler.take(count * step, small, detected ?? null));
  }
  return [...made, ...sampler.end()];
}

/** A picture between its rows of black. */
export function letterboxedPixels(pixels: Uint8ClampedArray): Float32Array {
  const { width, height, picture } = THINGS;
  const rgb = new Float32Array(width * height * 3);
  const above = ((height - picture.height) / 2) * width;
  for (let i = 0; i < pixels.length / 4; i++)
    for (let k = 0; k < 3; k++) rgb[(above + i) * 3 + k] = pixels[i * 4 + k] as number;
  return rgb;
}

/** A picture made small: between its four nearest pixels. */
function shrinkText(pixels: Uint8ClampedArray): Uint8ClampedArray {
  const { width, height } = THINGS.picture;
  const made = new Uint8ClampedArray(SMALL.width * SMALL.height * 4);
  for (let y = 0; y < SMALL.height; y++)
    for (let x = 0; x < SMALL.width; x++) {
      const [u, v] = [((x + 0.5) * width) / SMALL.width - 0.5, ((y + 0.5) * height) / SMALL.height - 0.5];
      const [i, j] = [Math.max(0, Math.floor(u)), Math.max(0, Math.floor(v))];
      const [s, t] = [Math.max(0, u - i), Math.max(0, v - j)];
      const at = (dx: number, dy: number, k: number) =>
        pixels[(Math.min(height - 1, j + dy) * width + Math.min(width - 1, i + dx)) * 4 + k] as number;
      for (let k = 0; k < 4; k++)
        made[(y * SMALL.width + x) * 4 + k] =
          (at(0, 0, k) * (1 - s) + at(1, 0, k) * s) * (1 - t) + (at(0, 1, k) * (1 - s) + at(1, 1, k) * s) * t;
    }
  return made;
}
