import { passNames } from '@core/pass/pass';
import { greyFacts } from '@core/words/cover';
import { storedFile } from '../store/storage';

/** Frames of a master to be looked at, on the grey copies that its pass stored. */
export interface GreyRequest {
  fingerprint: string;
  /** Of a copy. */
  width: number;
  height: number;
  frames: number[];
}

/** Detail and light of frames; nothing where the copies are gone. */
export async function lookAtGreys({
  fingerprint,
  width,
  height,
  frames,
}: GreyRequest): Promise<ReturnType<typeof greyFacts>[]> {
  const file = await storedFile('passes', passNames(fingerprint).grey);
  if (!file) return [];
  const bytes = width * height;
  const looks: ReturnType<typeof greyFacts>[] = [];
  for (const frame of frames) {
    const data = new Uint8Array(await file.slice(frame * bytes, (frame + 1) * bytes).arrayBuffer());
    looks.push(greyFacts({ width, height, data }));
  }
  return looks;
}
