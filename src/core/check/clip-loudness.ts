import type { Cut } from '../cut/cut';
import { secondsOf } from '../time/frame-rate';
import type { Look } from './look';

/** Gates of EBU R 128 (ITU-R BS.1770-4): the absolute one in LUFS, the relative one in LU under what passes it. */
const ABSOLUTE = -70;
const RELATIVE = -10;

const powerOf = (loudness: number): number => 10 ** (loudness / 10);
const loudnessOf = (powers: readonly number[]): number =>
  10 * Math.log10(powers.reduce((sum, power) => sum + power, 0) / powers.length);

/**
 * Integrated loudness of a cut in LUFS; null where nothing is heard. Of a whole master it is what was measured. Of
 * pieces it is the gated mean of the short-term loudness of their seconds, which is near it where a piece lasts longer
 * than the three seconds of that window.
 */
export function clipLoudness(cut: Cut, looks: readonly Look[]): number | null {
  const lookAt = (master: string) => looks.find((look) => look.master.id === master);
  const [first] = cut;
  const only = first && cut.length === 1 ? lookAt(first.master) : undefined;
  if (only && first?.in === 0 && first.out === only.source.frames)
    return only.pass?.sound?.integrated ?? null;
  const seconds = cut.flatMap((range): number[] => {
    const look = lookAt(range.master);
    const levels = look?.pass?.sound?.shortTerm ?? [];
    if (!look) return [];
    const from = Math.floor(secondsOf(range.in, look.source.rate));
    const to = Math.ceil(secondsOf(range.out, look.source.rate));
    return levels.slice(from, to).filter((level) => level !== null);
  });
  const heard = seconds.filter((level) => level > ABSOLUTE).map(powerOf);
  if (heard.length === 0) return null;
  const gate = powerOf(loudnessOf(heard) + RELATIVE);
  return loudnessOf(heard.filter((power) => power > gate));
}
