import { bytesLabel, bitsLabel } from '../figures/figures';
import type { BitRateChoice } from '../rate/bit-rate';
import type { OutletPlacement } from '../outlets/outlets';
import type { Finding, RuleId } from './finding';

/** What a rule is called. */
export const RULE_NAMES: Record<RuleId, string> = {
  length: 'Length',
  size: 'Size and ratio',
  coverage: 'Every frame filled',
  rate: 'Frame rate',
  enlargement: 'Enlargement',
  panes: 'Panes apart',
  'file-size': 'File size',
  audio: 'Sound',
  title: 'Title',
  tag: 'Required tag',
};

type Sentence = (finding: Finding, target: OutletPlacement) => string;
const number = (value: number | string): number => Number(value);
const shots = ({ limit }: Finding): string => `${limit} ${limit === 1 ? 'shot' : 'shots'}`;

/** What happened, what it means, what to do; by rule and outcome. */
const SENTENCES: Record<RuleId, Record<string, Sentence>> = {
  length: {
    over: (f, t) =>
      `${(number(f.measured) - number(f.limit ?? 0)).toFixed(1)} s over the ${f.limit} s limit of ${t.label}. ` +
      `Trim to ${f.limit} s.`,
    free: (f) => `${number(f.measured).toFixed(1)} s. No outlet sets a limit.`,
    'outside-best': (f, t) =>
      `${number(f.measured).toFixed(1)} s: allowed, but clips on ${t.label} do best at ${f.limit} s.`,
    within: (f, t) => `${number(f.measured).toFixed(1)} s, within the ${f.limit} s limit of ${t.label}.`,
  },
  size: {
    same: (f, t) => `${f.measured}, as ${t.label} asks.`,
    differs: (f, t) => `${f.measured}, but ${t.label} asks for ${f.limit}.`,
  },
  coverage: {
    filled: (f) => `All ${f.limit} frames are filled to the edge.`,
    bars: (f) =>
      `Bars on ${f.measured} of ${shots(f)}. The whole picture is fitted in; fill the canvas instead, or ` +
      'choose a layout with bands or a backdrop.',
    gap: (f) => `The panes leave pixels bare on ${f.measured} of ${shots(f)}. Choose the layout again.`,
    outside: (f) =>
      `The window reaches past the picture on ${f.measured} of ${shots(f)}. Reset the framing of those shots.`,
  },
  rate: {
    over: (f, t) =>
      `${f.measured} fps, but ${t.label} takes at most ${f.limit} fps. ` +
      'Choose a placement that takes this rate, or bring in a master at a lower one.',
    differs: (f) => `${f.measured} fps, but the master runs at another rate: ${f.limit}.`,
    mixed: (f) => `${f.measured} fps, but the clip's masters run at different rates: ${f.limit}.`,
    varies: (f) => `The master's rate varies. The clip runs at an even ${f.measured} fps: ${f.limit}.`,
    same: (f) => `${f.measured} fps, the same as the master.`,
  },
  enlargement: {
    soft: (f) =>
      `The master is enlarged to ${Math.round(number(f.measured) * 100)} %, and looks soft past ` +
      `${number(f.limit ?? 0) * 100} %. Zoom out, or bring in a larger master.`,
    enlarged: (f) => `The master is enlarged to ${(number(f.measured) * 100).toFixed(1)} % at most.`,
    spare: (f) =>
      `The master has pixels to spare: it is shown at ${(number(f.measured) * 100).toFixed(1)} %.`,
  },
  panes: {
    apart: () => 'No pane shows what another shows.',
    overlap: (f) => `Panes share a piece of the picture: ${f.measured}.`,
    subject: (f) => `The same subject is seen twice: ${f.measured}. Move one of the windows.`,
  },
  'file-size': {
    free: (f) => `About ${bytesLabel(number(f.measured))}. No outlet sets a cap.`,
    within: (f) =>
      `About ${bytesLabel(number(f.measured))}, under the cap of ${bytesLabel(number(f.limit ?? 0))}.`,
    over: (f, t) =>
      `About ${bytesLabel(number(f.measured))}, over ${t.label}'s cap of ${bytesLabel(number(f.limit ?? 0))}. ` +
      'Lower the bit rate.',
    'over-long': (f, t) =>
      `About ${bytesLabel(number(f.measured))}, over ${t.label}'s cap of ${bytesLabel(number(f.limit ?? 0))} ` +
      'at any bit rate worth having. Trim the clip.',
  },
  audio: {
    missing: () => 'The master has no sound. The clip will be silent.',
    partly: (f) => `${f.measured} of the clip's ${f.limit} masters has no sound. It is silent there.`,
    folded: (f) => `The master has ${f.measured} channels. The export folds them to stereo.`,
    resampled: (f) => `The master's sound runs at ${f.measured} kHz. The export converts it to 48 kHz.`,
    present: (f) => `Sound at ${f.measured} kHz.`,
  },
  title: {
    missing: () => 'The post has no title yet. Write one, the main words first.',
    over: (f, t) => `The title has ${f.measured} characters; ${t.label} shows ${f.limit}.`,
    within: (f) => `${f.measured} of ${f.limit} characters.`,
  },
  tag: {
    'none-required': (_, t) => `${t.label} requires no tag.`,
    present: (f) => `${f.limit} is among the tags.`,
    missing: (f, t) => `Without the tag ${f.limit}, ${t.label} does not treat the clip as a short.`,
  },
};

/** A finding in words. */
export function findingWords(finding: Finding, target: OutletPlacement): string {
  const sentence = SENTENCES[finding.rule][finding.code];
  if (!sentence) throw new RangeError(`no words for ${finding.rule} ${finding.code}`);
  return sentence(finding, target);
}

/** A figure of a finding in its unit. */
function figure(value: number | string, unit: string): string {
  if (typeof value === 'string') return unit === 'px' ? value : `${value} ${unit}`.trim();
  if (unit === 'bytes') return bytesLabel(value);
  if (unit === '×') return `${(value * 100).toFixed(1)} %`;
  return `${unit === 's' ? Number(value.toFixed(2)) : value} ${unit}`;
}

/** What is counted out of all there are, and not held to a limit. */
const COUNTED = new Set(['frames', 'shots', 'masters']);

/** What was measured and what the limit is, as two figures. */
export function measuredWords({ measured, limit, unit }: Finding): string {
  if (COUNTED.has(unit)) return `${measured} of ${limit} ${unit}`;
  return limit === null ? figure(measured, unit) : `${figure(measured, unit)}, limit ${figure(limit, unit)}`;
}

/** Why the worked-out bit rate is what it is. */
export function bitRateWords(choice: BitRateChoice): string {
  const words: Record<BitRateChoice['reason'], string> = {
    picture: 'by the canvas size and frame rate',
    floor: 'the least that looks clean at this size',
    master: 'held down by the bit rate of the master: more would hold nothing',
    cap: "held down by the outlet's file cap",
  };
  return `${bitsLabel(choice.bits)}: ${words[choice.reason]}.`;
}
