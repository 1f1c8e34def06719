// Compiles the pixel kernel from AssemblyScript to src/kernel/kernel.wasm.
import asc from 'assemblyscript/asc';

const FLAGS = [
  'src/kernel/assembly/kernel.ts',
  '--enable',
  'simd',
  '-O3',
  '--noAssert',
  '--runtime',
  'stub',
  '--importMemory',
  '--noExportMemory',
  '--initialMemory',
  '16',
  '--maximumMemory',
  '16384',
  '-o',
  'src/kernel/kernel.wasm',
];

export async function buildKernel() {
  const { error, stderr } = await asc.main(FLAGS);
  if (error) throw new Error(`the kernel did not compile:\n${stderr.toString()}`);
}
