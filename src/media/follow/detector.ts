import type { GraphModel } from '@tensorflow/tfjs-converter';
import { dispose, type Tensor, tensor4d } from '@tensorflow/tfjs-core';
import { type SubjectKind, toSubjectKind } from '@core/follow/evidence';
import {
  listAnchors,
  distinctBoxes,
  type FoundBox,
  fromLetterbox,
  computeLetterbox,
  readAnchors,
  readHeatmap,
} from '@core/follow/read-heatmap';
import type { PictureRect } from '@core/picture/size';
import { openArithmetic, openModel } from './models';

/** Pictures that the models take: things in a wide one, faces in a square. */
const THINGS = { width: 384, height: 224 };
const FACES = 256;
/** Minimum score of a detection that is reported. */
const MIN_THING = 0.2;
const MIN_FACE = 0.4;
/** Of two boxes of one class that share more of their union than this, one falls away. */
const SAME = 0.5;

/** Something that was detected. */
export interface Detections {
  kind: SubjectKind;
  confidence: number;
  box: PictureRect;
}

/** Draws the upright picture into a rectangle of a canvas. */
export type DrawPicture = (ink: OffscreenCanvasRenderingContext2D, to: PictureRect) => void;

/** Finds faces, people, animals, vehicles and things in pictures. */
export class Detector {
  private readonly canvases = new Map<number, OffscreenCanvasRenderingContext2D>();
  private readonly anchors = listAnchors(FACES, [
    { stride: FACES / 16, count: 2 },
    { stride: FACES / 8, count: 6 },
  ]);

  private constructor(
    private readonly things: GraphModel,
    private readonly faces: GraphModel,
  ) {}

  /** Loads the models. @throws Error where they cannot be had. */
  static async open(): Promise<Detector> {
    await openArithmetic();
    const [things, faces] = await Promise.all([openModel('centernet', THINGS), openModel('blazeface')]);
    return new Detector(things, faces);
  }

  /** @param aspect of the upright picture, width over height. */
  async detect(draw: DrawPicture, aspect: number): Promise<Detections[]> {
    const [things, faces] = [await this.findThings(draw, aspect), await this.findFaces(draw, aspect)];
    return [...things, ...faces];
  }

  private async findThings(draw: DrawPicture, aspect: number): Promise<Detections[]> {
    const box = computeLetterbox(aspect, THINGS);
    const pixels = this.drawn(draw, THINGS, box.picture);
    const taken = tensor4d(
      samples(pixels, (level) => level),
      [1, THINGS.height, THINGS.width, 3],
    );
    const [scores, sides] = await run(this.things, taken, ['tower_0/keypoints', 'tower_0/wh']);
    if (!scores || !sides) return [];
    const [across, down] = [THINGS.width / 4, THINGS.height / 4];
    const map = { scores: scores.data, sides: sides.data, across, down, classes: 80, stride: 4 };
    return distinctBoxes(readHeatmap(map, MIN_THING), SAME).map((found) => ({
      ...toConfidence(found),
      kind: toSubjectKind(found.of),
      box: fromLetterbox(found.box, box),
    }));
  }

  private async findFaces(draw: DrawPicture, aspect: number): Promise<Detections[]> {
    const size = { width: FACES, height: FACES };
    const box = computeLetterbox(aspect, size);
    const pixels = this.drawn(draw, size, box.picture);
    const taken = tensor4d(
      samples(pixels, (level) => level / 127.5 - 1),
      [1, FACES, FACES, 3],
    );
    const all = await run(this.faces, taken);
    const joinOutputs = (width: number) =>
      all
        .filter(({ shape }) => shape[2] === width)
        .sort((a, b) => (b.shape[1] ?? 0) - (a.shape[1] ?? 0))
        .flatMap(({ data }) => Array.from(data));
    const rows = { scores: joinOutputs(1), boxes: joinOutputs(16) };
    return readAnchors(rows, this.anchors, FACES, MIN_FACE).map((found) => ({
      ...toConfidence(found),
      kind: 'face',
      box: fromLetterbox(found.box, box),
    }));
  }

  private drawn(
    draw: DrawPicture,
    size: { width: number; height: number },
    to: PictureRect,
  ): Uint8ClampedArray {
    let ink = this.canvases.get(size.width);
    if (!ink) {
      ink =
        new OffscreenCanvas(size.width, size.height).getContext('2d', { willReadFrequently: true }) ??
        undefined;
      if (!ink) throw new Error('a canvas of two dimensions cannot be had');
      this.canvases.set(size.width, ink);
    }
    ink.fillStyle = '#000';
    ink.fillRect(0, 0, size.width, size.height);
    draw(ink, to);
    return ink.getImageData(0, 0, size.width, size.height).data;
  }
}

const toConfidence = ({ confidence }: FoundBox): { confidence: number } => ({
  confidence: Math.min(1, confidence),
});

/** Red, green and blue of each pixel. */
function samples(pixels: Uint8ClampedArray, of: (level: number) => number): Float32Array {
  const taken = new Float32Array((pixels.length / 4) * 3);
  for (let from = 0, to = 0; from < pixels.length; from += 4, to += 3) {
    taken[to] = of(pixels[from] as number);
    taken[to + 1] = of(pixels[from + 1] as number);
    taken[to + 2] = of(pixels[from + 2] as number);
  }
  return taken;
}

async function run(
  model: GraphModel,
  taken: Tensor,
  outputs?: string[],
): Promise<{ data: Float32Array; shape: number[] }[]> {
  const made = model.execute(taken, outputs);
  const tensors = Array.isArray(made) ? made : [made];
  try {
    return await Promise.all(
      tensors.map(async (tensor) => ({ data: (await tensor.data()) as Float32Array, shape: tensor.shape })),
    );
  } finally {
    dispose([taken, ...tensors]);
  }
}
