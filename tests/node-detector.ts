import { readFileSync } from 'node:fs';
import { setWasmPaths } from '@tensorflow/tfjs-backend-wasm';
import { loadGraphModel } from '@tensorflow/tfjs-converter';
import { env, io, ready, setBackend, tensor4d } from '@tensorflow/tfjs-core';
import {
  distinctBoxes,
  type FoundBox,
  fromLetterbox,
  computeLetterbox,
  readHeatmap,
} from '../src/core/follow/read-heatmap';
import type { PictureRect } from '../src/core/picture/size';
import { reshapeModel, type StoredModel } from '../src/media/follow/reshape-model';

const MODELS = 'node_modules/@vladmandic/human/models/';

/** The picture that the detector of things takes: a wide one between two rows of black. */
export const THINGS = { width: 384, height: 224, picture: { width: 384, height: 216 } };

/** Detection: the class number of the COCO data set, from 0, and the place in the picture, 0…1. */
export type FoundThing = FoundBox & { place: PictureRect };

/** The detector of things as the app runs it, in Node. */
export async function nodeDetector(): Promise<(rgb: Float32Array) => Promise<FoundThing[]>> {
  setWasmPaths(`${process.cwd()}/node_modules/@tensorflow/tfjs-backend-wasm/dist/`);
  env().set('WASM_HAS_MULTITHREAD_SUPPORT', false);
  await setBackend('wasm');
  await ready();
  const stored = JSON.parse(readFileSync(`${MODELS}centernet.json`, 'utf8')) as StoredModel;
  const bytes = new Uint8Array(readFileSync(`${MODELS}centernet.bin`)).buffer;
  const { modelTopology, weightsManifest, signature } = reshapeModel(stored, bytes, THINGS);
  const model = await loadGraphModel(
    io.fromMemory({
      modelTopology,
      weightSpecs: weightsManifest.flatMap(({ weights }) => weights),
      weightData: bytes,
      ...(signature && { signature }),
    }),
  );
  const box = computeLetterbox(16 / 9, THINGS);
  return async (rgb) => {
    const taken = tensor4d(rgb, [1, THINGS.height, THINGS.width, 3]);
    const made = model.execute(taken, ['tower_0/keypoints', 'tower_0/wh']);
    const tensors = Array.isArray(made) ? made : [made];
    const [scores, sides] = await Promise.all(tensors.map((tensor) => tensor.data()));
    for (const tensor of [taken, ...tensors]) tensor.dispose();
    const [across, down] = [THINGS.width / 4, THINGS.height / 4];
    const map = { scores: scores!, sides: sides!, across, down, classes: 80, stride: 4 };
    return distinctBoxes(readHeatmap(map, 0.2), 0.5).map((next) => ({
      ...next,
      place: fromLetterbox(next.box, box),
    }));
  };
}
