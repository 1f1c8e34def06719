import { execFileSync } from 'node:child_process';

const RATE = 48000;
/** Lags tried, in samples each way: wider than an AAC encoder's delay. */
const REACH = 3000;

/** Mono samples of a part of a file's sound, decoded by ffmpeg. @param from first sample. */
export function soundOf(file: string, from: number, count: number): Float32Array {
  const filter = `aresample=${RATE},atrim=start_sample=${from}:end_sample=${from + count}`;
  const out = execFileSync(
    'ffmpeg',
    ['-v', 'error', '-i', file, '-vn', '-af', filter, '-ac', '1', '-f', 'f32le', '-'],
    { maxBuffer: 1 << 28 },
  );
  return new Float32Array(out.buffer.slice(out.byteOffset, out.byteOffset + out.byteLength));
}

/** By how many samples `b` lags `a`: where their correlation is greatest. */
export function lagOf(a: Float32Array, b: Float32Array): number {
  const length = Math.min(a.length, b.length) - 2 * REACH;
  const score = (lag: number) => {
    let sum = 0;
    for (let i = REACH; i < REACH + length; i++) sum += (a[i] as number) * (b[i + lag] as number);
    return sum;
  };
  let best = 0;
  for (let lag = -REACH; lag <= REACH; lag++) if (score(lag) > score(best)) best = lag;
  return best;
}
