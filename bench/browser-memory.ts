import { readdirSync, readFileSync } from 'node:fs';

/** How often memory is looked at, in milliseconds. */
const EVERY = 250;

/** Memory of all processes of a program, in megabytes: each one's own part and its share of what is shared (PSS). */
function measureMemory(name: string): number {
  let kilobytes = 0;
  for (const pid of readdirSync('/proc').filter((entry) => /^\d+$/.test(entry))) {
    try {
      if (!readFileSync(`/proc/${pid}/cmdline`, 'utf8').includes(name)) continue;
      kilobytes += Number(/^Pss:\s+(\d+)/m.exec(readFileSync(`/proc/${pid}/smaps_rollup`, 'utf8'))?.[1] ?? 0);
    } catch {
      // The process ended meanwhile.
    }
  }
  return kilobytes / 1024;
}

/** The most memory that a program's processes took while something ran, in megabytes. */
export async function peakMemory(name: string, run: () => Promise<unknown>): Promise<number> {
  let peak = 0;
  const timer = setInterval(() => (peak = Math.max(peak, measureMemory(name))), EVERY);
  try {
    await run();
  } finally {
    clearInterval(timer);
  }
  return peak;
}
