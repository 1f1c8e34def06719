import { spawn } from 'node:child_process';
import type { GreyPlane } from '../../src/core/picture/likeness';
import type { Size } from '../../src/core/picture/size';

/**
 * Luma of a film's frames, in order, as it is coded.
 * @param size that every frame is brought to. @throws Error with what ffmpeg said.
 */
export async function* greyFrames(
  input: readonly string[],
  { width, height }: Size,
): AsyncGenerator<GreyPlane, void, undefined> {
  // The luma plane itself: a conversion to grey would stretch its range.
  const filter = `scale=${width}:${height}:flags=bicubic,format=yuv420p,extractplanes=y`;
  const args = ['-v', 'error', ...input, '-vf', filter, '-f', 'rawvideo', 'pipe:1'];
  const child = spawn('ffmpeg', args, { stdio: ['ignore', 'pipe', 'pipe'] });
  let said = '';
  child.stderr.setEncoding('utf8').on('data', (text: string) => (said += text));
  const ended = new Promise<number | null>((resolve) => child.on('close', resolve));
  try {
    let data = new Uint8Array(width * height);
    let filled = 0;
    for await (const piece of child.stdout as AsyncIterable<Buffer>) {
      for (let at = 0; at < piece.length;) {
        const taken = Math.min(piece.length - at, data.length - filled);
        data.set(piece.subarray(at, at + taken), filled);
        [at, filled] = [at + taken, filled + taken];
        if (filled < data.length) continue;
        yield { data, width, height };
        [data, filled] = [new Uint8Array(width * height), 0];
      }
    }
    if ((await ended) !== 0)
      throw new Error(`ffmpeg could not decode: ${said.trim().split('\n').pop() ?? ''}`);
  } finally {
    child.kill('SIGKILL');
  }
}
