import path from 'node:path';

/** The project's folder: where this lies, and where it is bundled to, are both one below it. */
export const ROOT = path.resolve(__dirname, '..');

/** Finds a program or a thread that `scripts/build-server.mjs` built. */
export const builtProgram = (
  name: 'main' | 'render' | 'worker' | 'order-thread' | 'segment-thread' | 'rate-trial-thread',
): string => path.join(ROOT, 'server-build', `${name}.cjs`);
