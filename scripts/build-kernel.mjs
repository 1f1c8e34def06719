// Compiles the pixel kernel from AssemblyScript, once for every engine and once with relaxed SIMD for those that have it.
import { existsSync, readdirSync, statSync } from 'node:fs';
import path from 'node:path';
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

/** Tells whether the kernel is built and no older than its source. */
export function isKernelBuilt() {
  const folder = path.dirname(FLAGS[0]);
  const changed = Math.max(...readdirSync(folder).map((name) => statSync(path.join(folder, name)).mtimeMs));
  return Object.keys(BUILDS).every((file) => existsSync(file) && statSync(file).mtimeMs >= changed);
}

export async function buildKernel() {
  for (const [file, more] of Object.entries(BUILDS)) {
    const { error, stderr } = await asc.main([...FLAGS, ...more, '-o', file]);
    if (error) throw new Error(`the kernel did not compile:\n${stderr.toString()}`);
  }
}
