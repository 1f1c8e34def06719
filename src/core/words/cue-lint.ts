import { memoize } from '../figures/memoize';
import { rateValue } from '../time/frame-rate';
import type { Cue } from './captions';
import type { ListedCue } from './cue-list';
import { splitGraphemes } from './graphemes';
import type { ReadingLimits } from './reading-limits';
import type { FrameRate } from '../time/frame-rate';

/** Fault of a cue: the measured value, the limit, and where it matters the line or the frame. */
export type CueFault =
  | { code: 'characters'; measured: number; limit: number; line: number }
  | MeasuredFault<'lines' | 'speed' | 'short' | 'long' | 'gap'>
  | { code: 'overlap'; measured: number; limit: 0 }
  | { code: 'over-cut'; measured: number; limit: 0; frame: number }
  | { code: 'no-font'; measured: number; limit: 0; characters: string }
  | { code: 'empty'; measured: 0; limit: 1 };

/** Measured fault of one code, so that its words are given that code's values. */
type MeasuredFault<Code> = Code extends string ? { code: Code; measured: number; limit: number } : never;

export type FaultCode = CueFault['code'];

const figure = (value: number): string => String(Number(value.toFixed(2)));

const FAULT_WORDS: { [C in FaultCode]: (fault: Extract<CueFault, { code: C }>) => string } = {
  characters: ({ measured, limit, line }) =>
    `Line ${line} has ${measured} characters of at most ${limit}. Break it, or use fewer words.`,
  lines: ({ measured, limit }) => `It has ${measured} lines of at most ${limit}. Split it.`,
  speed: ({ measured, limit }) =>
    `It is read at ${Number(measured.toFixed(1))} characters a second, at most ${limit}. Let it stay longer, or use fewer words.`,
  short: ({ measured, limit }) => `It stays ${figure(measured)} s, at least ${limit} s. Let it stay longer.`,
  long: ({ measured, limit }) => `It stays ${figure(measured)} s, at most ${limit} s. Split it.`,
  gap: ({ measured, limit }) =>
    `${figure(measured)} s pass until the next cue, at least ${limit} s. End it earlier, or let it touch the next.`,
  overlap: ({ measured }) => `It ends ${figure(measured)} s after the next one begins. End it earlier.`,
  'over-cut': ({ measured }) => `It goes on ${figure(measured)} s past a cut. End it there.`,
  'no-font': ({ characters }) =>
    `No font has what would be empty boxes: ${characters}. Write something else, or choose a font that has it.`,
  empty: () => 'It has no words. Write some, or remove it.',
};

/** A fault in words: what was measured, what the limit is, and what to do. */
export const faultWords = (fault: CueFault): string =>
  (FAULT_WORDS[fault.code] as (fault: CueFault) => string)(fault);

/** A cue may reach so many frames past a cut, or begin so many before it, without being over it. */
const NEAR_CUT = 2;

/** Limits and rate that cues are judged by. */
interface JudgeOptions {
  limits: ReadingLimits;
  /** Output frames at which the picture changes. */
  cuts: readonly number[];
  rate: FrameRate;
  /** The characters of a text that no font has, where fonts are known. */
  lacking?: (text: string) => string[];
}

/** Judges the cues of a clip. @param listed in order. @returns by the cue's id. */
export function lintCues(
  listed: readonly ListedCue[],
  { limits, cuts, rate, lacking = () => [] }: JudgeOptions,
): Map<string, CueFault[]> {
  const seconds = (frames: number) => frames / rateValue(rate);
  const found = new Map<string, CueFault[]>();
  listed.forEach(({ cue, at }, i) => {
    const faults = [...textFaults(cue, limits), ...fontFaults(lacking(cue.text))];
    if (at) {
      const stays = seconds(at.to - at.from);
      const { letters } = lettersOf(cue);
      const speed = letters / stays;
      if (speed > limits.speed + 1e-6) faults.push({ code: 'speed', measured: speed, limit: limits.speed });
      // A limit of whole frames is met by the frame that comes nearest.
      const frame = seconds(1) / 2;
      if (stays < limits.shortest - frame)
        faults.push({ code: 'short', measured: stays, limit: limits.shortest });
      if (stays > limits.longest + frame)
        faults.push({ code: 'long', measured: stays, limit: limits.longest });
      const next = listed[i + 1]?.at;
      if (next) {
        const gap = seconds(next.from - at.to);
        if (gap < 0) faults.push({ code: 'overlap', measured: -gap, limit: 0 });
        else if (gap > 0 && gap < limits.gap - frame)
          faults.push({ code: 'gap', measured: gap, limit: limits.gap });
      }
      const cut = cuts.find((place) => place > at.from + NEAR_CUT && place < at.to - NEAR_CUT);
      if (cut !== undefined)
        faults.push({ code: 'over-cut', measured: seconds(at.to - cut), limit: 0, frame: cut });
    }
    if (faults.length > 0) found.set(cue.id, faults);
  });
  return found;
}

/** Characters of a cue: as it is read, and by its lines. */
interface Letters {
  letters: number;
  lines: number[];
}

/** A cue that is changed is another object; counting the others again would cost most of a frame for some hundred. */
const lettersOf = memoize(({ text }: Cue): Letters => ({
  letters: splitGraphemes(text.replaceAll('\n', ' ')).length,
  lines: text.split('\n').map((line) => splitGraphemes(line).length),
}));

function textFaults(cue: Cue, limits: ReadingLimits): CueFault[] {
  if (cue.text.trim() === '') return [{ code: 'empty', measured: 0, limit: 1 }];
  const { lines } = lettersOf(cue);
  const faults: CueFault[] = lines.flatMap((measured, i): CueFault[] => {
    return measured > limits.characters
      ? [{ code: 'characters', measured, limit: limits.characters, line: i + 1 }]
      : [];
  });
  if (lines.length > limits.lines)
    faults.push({ code: 'lines', measured: lines.length, limit: limits.lines });
  return faults;
}

/** Characters that are told at most. */
const MAX_TOLD = 8;

const fontFaults = (characters: readonly string[]): CueFault[] =>
  characters.length === 0
    ? []
    : [
        {
          code: 'no-font',
          measured: characters.length,
          limit: 0,
          characters: characters.slice(0, MAX_TOLD).join(' '),
        },
      ];
