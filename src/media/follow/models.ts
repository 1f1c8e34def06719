import { type GraphModel, loadGraphModel } from '@tensorflow/tfjs-converter';
import { env, io, ready, setBackend } from '@tensorflow/tfjs-core';
import { setWasmPaths } from '@tensorflow/tfjs-backend-wasm';
import plainWasm from '@tensorflow/tfjs-backend-wasm/dist/tfjs-backend-wasm.wasm';
import simdWasm from '@tensorflow/tfjs-backend-wasm/dist/tfjs-backend-wasm-simd.wasm';
import { modelFiles } from './model-files';
import { reshapeModel } from './reshape-model';

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

/** Loads a model. @param size pictures that it is to take, where it can take any. */
export async function openModel(name: string, size?: { width: number; height: number }): Promise<GraphModel> {
  const { stored, weights } = await modelFiles(name);
  const model = size ? reshapeModel(stored, weights, size) : stored;
  return loadGraphModel(
    io.fromMemory({
      modelTopology: model.modelTopology,
      weightSpecs: model.weightsManifest.flatMap((part) => part.weights),
      weightData: weights,
      ...(model.signature && { signature: model.signature }),
    }),
  );
}
