import { env, InferenceSession, Tensor } from 'onnxruntime-web/wasm';
import wasm from 'onnxruntime-web/ort-wasm-simd-threaded.wasm';
import { VOICE } from '@core/speech/speech';
import { keptFiles } from '../store/kept-files';

/** Shape of the state that the net carries over from one step to the next. */
const STATE = [2, 1, 128];

/** Tells how likely steps of sound are speech. Its net remembers what it heard: the steps are of one sound, in order. */
export class VoiceNet {
  private state = new Tensor('float32', new Float32Array(STATE.reduce((a, b) => a * b)), STATE);
  private readonly rate = new Tensor('int64', BigInt64Array.of(BigInt(VOICE.rate)), []);
  /** The last samples of the step before, and this step's. */
  private readonly heard = new Float32Array(VOICE.before + VOICE.step);

  private constructor(private readonly session: InferenceSession) {}

  /** Loads it, on WebAssembly in this worker alone. @throws TroubleError `server-down`, `server-answer`. */
  static async open(): Promise<VoiceNet> {
    env.wasm.numThreads = 1;
    env.wasm.wasmPaths = { wasm };
    return keptFiles(['/models/voice.onnx'], 'speech', async ([model]) =>
      model ? new VoiceNet(await InferenceSession.create(model, { executionProviders: ['wasm'] })) : null,
    );
  }

  /** @param step mono samples. @returns 0…1. */
  async likely(step: Float32Array): Promise<number> {
    this.heard.copyWithin(0, VOICE.step);
    this.heard.set(step, VOICE.before);
    const input = new Tensor('float32', this.heard, [1, this.heard.length]);
    const { output, stateN } = await this.session.run({ input, state: this.state, sr: this.rate });
    this.state = stateN as Tensor & typeof this.state;
    return (output?.data[0] as number | undefined) ?? 0;
  }

  close(): Promise<void> {
    return this.session.release();
  }
}
