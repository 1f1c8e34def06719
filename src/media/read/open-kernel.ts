import { Kernel } from '@kernel/kernel';
import plainUrl from '@kernel/kernel.wasm';
import relaxedUrl from '@kernel/kernel-relaxed.wasm';

/** A kernel of this thread's own: the one with relaxed SIMD where the engine takes it. Both draw the same samples. */
export async function openKernel(): Promise<Kernel> {
  const bytes = async (url: string) => (await fetch(url)).arrayBuffer();
  const relaxed = await bytes(relaxedUrl);
  return Kernel.load(WebAssembly.validate(relaxed) ? relaxed : await bytes(plainUrl));
}
