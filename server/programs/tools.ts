import { access, constants } from 'node:fs/promises';
import path from 'node:path';

async function onPath(name: string): Promise<boolean> {
  for (const folder of (process.env.PATH ?? '').split(path.delimiter)) {
    const found = await access(path.join(folder, name), constants.X_OK).then(
      () => true,
      () => false,
    );
    if (found) return true;
  }
  return false;
}

/** Outside programs that this machine has. */
export interface Tools {
  /** ffmpeg and ffprobe. */
  ffmpeg: boolean;
  /** Limits of memory and of file size for a program. */
  prlimit: boolean;
  /** A program that ends with the one that started it, however that ends. */
  setpriv: boolean;
}

/** Looks for the outside programs once; none of them is started for it. */
export async function findTools(): Promise<Tools> {
  const [ffmpeg, ffprobe, prlimit, setpriv] = await Promise.all(
    ['ffmpeg', 'ffprobe', 'prlimit', 'setpriv'].map(onPath),
  );
  return { ffmpeg: Boolean(ffmpeg && ffprobe), prlimit: Boolean(prlimit), setpriv: Boolean(setpriv) };
}
