import type { Cut, Range } from '../cut/cut';
import type { SoundFacts } from '../pass/pass';
import { integratedLoudness, toPower, STEPS_A_SECOND, TWO_FOR_ONE_LU } from '../sound/loudness';
import { toSeconds } from '../time/frame-rate';
import type { MasterAnalysis } from './master-analysis';

/**
 * Integrated loudness of a cut in LUFS; null where nothing is heard. It is measured on the tenths of seconds that the
 * clip plays, in blocks of the clip's own.
 * @param channels of the clip: 1 or 2.
 */
export function clipLoudness(cut: Cut, looks: readonly MasterAnalysis[], channels: number): number | null {
  const lookAt = (master: string) => looks.find((look) => look.master.id === master);
  const [first] = cut;
  const only = first && cut.length === 1 ? lookAt(first.master) : undefined;
  if (only && isStereoOrMono(only) && first?.in === 0 && first.out === only.source.frames) {
    const whole = only.pass?.sound?.integrated ?? null;
    return whole === null ? null : whole + (isDoubled(only, channels) ? TWO_FOR_ONE_LU : 0);
  }
  const powers: number[] = [];
  // Part of a step that the ranges so far left unfinished: its length in steps, and the power in it.
  let open = { length: 0, power: 0 };
  for (const range of cut) {
    const look = lookAt(range.master);
    if (!look) return null;
    for (const { length, power } of readLoudnessSteps(range, look, channels)) {
      const taken = Math.min(length, 1 - open.length);
      open = { length: open.length + taken, power: open.power + taken * power };
      if (open.length < 1 - 1e-9) continue;
      powers.push(open.power);
      open = { length: length - taken, power: (length - taken) * power };
    }
  }
  if (open.length > 0.5) powers.push(open.power / open.length);
  const loudness = integratedLoudness(powers);
  return loudness === -Infinity ? null : loudness;
}

const isStereoOrMono = ({ source }: MasterAnalysis): boolean => (source.audio?.channels ?? 0) <= 2;

/** Tells whether the one channel of a master is heard on two. */
const isDoubled = ({ source }: MasterAnalysis, channels: number): boolean =>
  source.audio?.channels === 1 && channels === 2;

/** Steps of a master, and parts of steps, that a range plays, with their power; silence where the sound has ended. */
function* readLoudnessSteps(
  range: Range,
  look: MasterAnalysis,
  channels: number,
): Generator<{ length: number; power: number }, void, undefined> {
  const { source, pass } = look;
  const steps = listSteps(pass?.sound ?? null);
  const times = isDoubled(look, channels) ? 2 : 1;
  const from = toSeconds(range.in, source.rate) * STEPS_A_SECOND;
  const to = toSeconds(range.out, source.rate) * STEPS_A_SECOND;
  for (let step = Math.floor(from); step < to; step++) {
    const length = Math.min(step + 1, to) - Math.max(step, from);
    const level = steps[step] ?? null;
    if (length > 0) yield { length, power: level === null ? 0 : times * toPower(level) };
  }
}

/** Loudness of each tenth of a second; of a pass of an earlier version about, by the three seconds around it. */
const listSteps = (sound: SoundFacts | null): readonly (number | null)[] =>
  sound?.steps ??
  sound?.shortTerm.flatMap((level) => Array.from({ length: STEPS_A_SECOND }, () => level)) ??
  [];
