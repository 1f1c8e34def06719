// Compiles the pixel kernel from AssemblyScript, once for every engine and once with relaxed SIMD for those that have it.
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
];

const BUILDS = {
  'src/kernel/kernel.wasm': [],
  'src/kernel/kernel-relaxed.wasm': ['--enable', 'relaxed-simd'],
};

export async function buildKernel() {
  for (const [file, more] of Object.entries(BUILDS)) {
    const { error, stderr } = await asc.main([...FLAGS, ...more, '-o', file]);
    if (error) throw new Error(`the kernel did not compile:\n${stderr.toString()}`);
  }
}
