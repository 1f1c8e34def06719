import { type GraphModel, loadGraphModel } from '@tensorflow/tfjs-converter';
import { env, io, ready, setBackend } from '@tensorflow/tfjs-core';
import { setWasmPaths } from '@tensorflow/tfjs-backend-wasm';
import plainWasm from '@tensorflow/tfjs-backend-wasm/dist/tfjs-backend-wasm.wasm';
import simdWasm from '@tensorflow/tfjs-backend-wasm/dist/tfjs-backend-wasm-simd.wasm';
import { reshaped, type StoredModel } from './reshape-model';

/** Where the weights lie on our own server, and in the browser once they were fetched. */
const FOLDER = '/models/';
const CACHE = 'gusset/models';

/** Gets the arithmetic ready: WebAssembly in this worker alone, since its threads hang under our policy. */
export async function openArithmetic(): Promise<void> {
  env().set('WASM_HAS_MULTITHREAD_SUPPORT', false);
  setWasmPaths({
    'tfjs-backend-wasm.wasm': plainWasm,
    'tfjs-backend-wasm-simd.wasm': simdWasm,
    'tfjs-backend-wasm-threaded-simd.wasm': simdWasm,
  });
  await setBackend('wasm');
  await ready();
}

/** A file of a model: kept by the browser after the first time, so that it is there without a server too. */
async function modelFile(name: string): Promise<Response> {
  const url = FOLDER + name;
  const cache = await caches.open(CACHE);
  const kept = await cache.match(url);
  if (kept) return kept;
  const fetched = await fetch(url);
  if (!fetched.ok) throw new Error(`the model ${name} could not be loaded: ${fetched.status}`);
  await cache.put(url, fetched.clone());
  return fetched;
}

/** Loads a model. @param size pictures that it is to take, where it can take any. */
export async function openModel(name: string, size?: { width: number; height: number }): Promise<GraphModel> {
  const [json, weights] = await Promise.all([modelFile(`${name}.json`), modelFile(`${name}.bin`)]);
  const stored = (await json.json()) as StoredModel;
  const bytes = await weights.arrayBuffer();
  const model = size ? reshaped(stored, bytes, size) : stored;
  return loadGraphModel(
    io.fromMemory({
      modelTopology: model.modelTopology,
      weightSpecs: model.weightsManifest.flatMap((part) => part.weights),
      weightData: bytes,
      ...(model.signature && { signature: model.signature }),
    }),
  );
}
