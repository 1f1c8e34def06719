import { readFileSync } from 'node:fs';

/** Clock ticks of a second in /proc (Linux: USER_HZ). */
const TICKS = 100;

/** Processor seconds of a process and of what it started and waited for, by its own line in /proc. */
export function processorSeconds(pid: number): number {
  const fields = readFileSync(`/proc/${pid}/stat`, 'utf8').split(') ')[1]?.split(' ') ?? [];
  return fields.slice(11, 15).reduce((sum, ticks) => sum + Number(ticks), 0) / TICKS;
}
