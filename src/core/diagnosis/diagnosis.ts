import type { Master } from '../master/master';
import type { Repairs } from '../master/repairs';
import { toSource } from '../master/source';
import type { AnalysisResult } from '../pass/pass';
import { liveSize } from '../picture/live-area';
import type { PixelAspect } from '../picture/orientation';
import { type Rect, type Size, WHOLE_RECT } from '../picture/size';
import { compareRates, rateValue, rateLabel } from '../time/frame-rate';
import { listFoundInMaster, isReachingPast } from './found-edges';
import { guessAspects } from './pixel-aspects';
import type { ProblemCode, ProblemValues } from './problem-values';

/** How much a problem matters: a note is only told, the others show in the clips. */
type Weight = 'fine' | 'note' | 'warn';

/** Problem of a master and what it means for the clips, as data; its words are made in words.ts. */
export type Problem = {
  [Code in ProblemCode]: {
    code: Code;
    weight: Weight;
    values: ProblemValues[Code];
    /** Repairs that would solve it, each with a label. Empty where nothing can be done here. */
    offers: { label: string; repairs: Repairs }[];
    /** True when a repair of this kind is in place. */
    repaired: boolean;
  };
}[ProblemCode];

/** Input of the diagnosis. */
export interface DiagnosisInput {
  master: Master;
  repairs: Repairs;
  /** Null until the master was looked at once. */
  pass: AnalysisResult | null;
  /** Canvases that clips are made for. */
  canvases: readonly Size[];
}

/** Frames that comb, as a share, from which on a master counts as interlaced. */
const INTERLACED = 0.15;
/** A file is enlarged past its own pixels: common practice takes up to twice (no source). */
const SMALL = 2;
/** Above this the outlets' own encoders clip (EBU R 128: at most −1 dBTP). */
const LOUD_PEAK = -1;

/** Everything that is to be said of a master, worst first. */
export function diagnoseMaster(patient: DiagnosisInput): Problem[] {
  const order: Record<Weight, number> = { warn: 0, note: 1, fine: 2 };
  return [pixelAspect, rotation, flip, bars, shotBars, range, matrix, rate, interlace, upright, small, loud]
    .flatMap((look) => look(patient) ?? [])
    .sort((a, b) => order[a.weight] - order[b.weight]);
}

type Diagnose = (patient: DiagnosisInput) => Problem | null;

const same = (a: PixelAspect, b: PixelAspect): boolean => a.num * b.den === b.num * a.den;
const offer = (label: string, repairs: Repairs) => ({ label, repairs });

const pixelAspect: Diagnose = ({ master, repairs }) => {
  const now = repairs.pixelAspect ?? master.pixelAspect;
  const square = same(now, { num: 1, den: 1 });
  const guesses = guessAspects(master.coded).filter((guess) => !same(guess.aspect, now));
  const repaired = repairs.pixelAspect !== null;
  if (square && guesses.length === 0 && !repaired) return null;
  const { width, height } = toSource(master, repairs).picture;
  const offers = guesses.map(({ name, aspect }) => offer(name, { ...repairs, pixelAspect: aspect }));
  if (!square) offers.push(offer('Square pixels', { ...repairs, pixelAspect: { num: 1, den: 1 } }));
  return {
    code: 'pixel-aspect',
    weight: square && !repaired ? 'note' : 'fine',
    values: {
      aspect: `${now.num}:${now.den}`,
      width,
      height,
      stored: `${master.coded.width}×${master.coded.height}`,
    },
    offers,
    repaired,
  };
};

const rotation: Diagnose = ({ master, repairs }) => {
  const now = repairs.rotation ?? master.rotation;
  const repaired = repairs.rotation !== null;
  if (now === 0 && !repaired) return null;
  const others = ([0, 90, 180, 270] as const).filter((turn) => turn !== now);
  return {
    code: 'rotation',
    weight: 'fine',
    values: { degrees: now, flagged: master.rotation },
    offers: others.map((turn) =>
      offer(turn === 0 ? 'Not turned' : `Turn by ${turn}°`, { ...repairs, rotation: turn }),
    ),
    repaired,
  };
};

const flip: Diagnose = ({ master, repairs }) => {
  const now = repairs.flip ?? master.flip;
  if (!now && repairs.flip === null) return null;
  return {
    code: 'flip',
    weight: 'fine',
    values: {},
    offers: [offer(now ? 'Not mirrored' : 'Mirror it', { ...repairs, flip: !now })],
    repaired: repairs.flip !== null,
  };
};

/** A rectangle of the stored picture as a size in square pixels of the upright one. */
const toLabel = (picture: Size, live: Rect): string => {
  const { width, height } = liveSize(picture, live);
  return `${Math.round(width)}×${Math.round(height)}`;
};

const bars: Diagnose = ({ master, repairs, pass }) => {
  const source = toSource(master, repairs);
  const found = pass && listFoundInMaster(pass, source);
  const repaired = repairs.live !== null;
  if (!found && !repaired) return null;
  const taken = repaired && found !== null && !isReachingPast(source.live, found);
  const offers = found && !taken ? [offer('Use the edges that were found', { ...repairs, live: found })] : [];
  if (found && !repaired)
    offers.push(offer('They are part of the picture', { ...repairs, live: WHOLE_RECT }));
  if (repaired) offers.push(offer('Undo this repair', { ...repairs, live: null }));
  return {
    code: 'bars',
    weight: repaired ? 'fine' : 'warn',
    values: {
      live: toLabel(source.picture, repairs.live ?? found ?? source.live),
      whole: toLabel(source.picture, { x: 0, y: 0, width: 1, height: 1 }),
      sure: Math.round((pass?.liveConfidence ?? 0) * 100),
    },
    offers,
    repaired,
  };
};

const shotBars: Diagnose = ({ pass }) => {
  const count = pass?.shots.filter((shot) => shot.live !== null).length ?? 0;
  if (count === 0) return null;
  return { code: 'shot-bars', weight: 'note', values: { count }, offers: [], repaired: false };
};

const range: Diagnose = ({ master, repairs }) => {
  const full = repairs.fullRange ?? master.colour.fullRange;
  const repaired = repairs.fullRange !== null;
  if (full !== true && master.colour.fullRange !== null && !repaired) return null;
  const unknown = full === null;
  return {
    code: 'range',
    weight: 'fine',
    values: { range: unknown ? null : full ? 'full' : 'limited' },
    offers: [offer(full ? 'It is limited' : 'It is full', { ...repairs, fullRange: !full })],
    repaired,
  };
};

const matrix: Diagnose = ({ master, repairs }) => {
  const now = repairs.matrix ?? master.colour.matrix;
  const repaired = repairs.matrix !== null;
  const { height } = master.coded;
  // Without a tag small pictures are mostly BT.601 and large ones BT.709 (common practice, no source).
  const likely = height <= 576 ? 'smpte170m' : 'bt709';
  if (now !== null && !repaired && (now === 'bt709' || height <= 576)) return null;
  const names = ['bt709', 'smpte170m', 'bt2020-ncl'].filter((name) => name !== now);
  return {
    code: 'matrix',
    weight: now === null && likely !== 'bt709' ? 'note' : 'fine',
    values: { matrix: now, likely },
    offers: names.map((name) => offer(MATRIX_NAMES[name] ?? name, { ...repairs, matrix: name })),
    repaired,
  };
};

/** Colour matrices by the names that people know. */
export const MATRIX_NAMES: Record<string, string> = {
  bt709: 'BT.709',
  smpte170m: 'BT.601',
  bt470bg: 'BT.601',
  'bt2020-ncl': 'BT.2020',
};

const rate: Diagnose = ({ master, repairs }) => {
  if (master.constantRate) return null;
  const now = repairs.rate ?? master.rate;
  const halves = { num: now.num, den: now.den * 2 };
  const doubles = { num: now.num * 2, den: now.den };
  const rates = [master.rate, halves, doubles].filter(
    (rate) => compareRates(rate, now) !== 0 && rateValue(rate) <= 120,
  );
  return {
    code: 'varying-rate',
    weight: 'warn',
    values: {
      least: (1 / master.frameTimes.greatest).toFixed(2),
      mean: (1 / master.frameTimes.mean).toFixed(2),
      greatest: (1 / master.frameTimes.least).toFixed(2),
      rate: rateValue(now).toFixed(3),
      repeated: master.repeated,
      dropped: master.dropped,
    },
    offers: rates.map((rate) =>
      offer(`Map to ${rateLabel(rate)} fps`, {
        ...repairs,
        rate: compareRates(rate, master.rate) === 0 ? null : rate,
      }),
    ),
    repaired: repairs.rate !== null,
  };
};

const interlace: Diagnose = ({ repairs, pass }) => {
  const combs = (pass?.combed ?? 0) >= INTERLACED;
  if (!combs && !repairs.deinterlace) return null;
  return {
    code: 'interlace',
    weight: repairs.deinterlace ? 'fine' : 'warn',
    values: {
      share: Math.round((pass?.combed ?? 0) * 100),
      order: pass?.topFirst == null ? null : pass.topFirst ? 'top' : 'bottom',
    },
    offers: repairs.deinterlace ? [] : [offer('Deinterlace', { ...repairs, deinterlace: true })],
    repaired: repairs.deinterlace,
  };
};

const upright: Diagnose = ({ master, repairs }) => {
  const source = toSource(master, repairs);
  const { width, height } = liveSize(source.picture, source.live);
  if (width > height * 1.02) return null;
  return {
    code: 'upright',
    weight: 'fine',
    values: { shape: height > width * 1.02 ? 'tall' : 'square' },
    offers: [],
    repaired: false,
  };
};

const small: Diagnose = ({ master, repairs, canvases }) => {
  const source = toSource(master, repairs);
  const live = liveSize(source.picture, source.live);
  const worst = canvases
    .map((canvas) => ({ canvas, by: Math.max(canvas.width / live.width, canvas.height / live.height) }))
    .sort((a, b) => b.by - a.by)[0];
  if (!worst || worst.by <= SMALL) return null;
  const missing = worst.by / SMALL;
  return {
    code: 'small',
    weight: 'warn',
    values: {
      canvas: `${worst.canvas.width}×${worst.canvas.height}`,
      percent: Math.round(worst.by * 100),
      width: Math.ceil(live.width * missing),
      height: Math.ceil(live.height * missing),
      size: `${Math.round(live.width)}×${Math.round(live.height)}`,
    },
    offers: [],
    repaired: false,
  };
};

const loud: Diagnose = ({ pass }) => {
  const sound = pass?.sound;
  if (!sound || sound.truePeak === null || sound.truePeak <= LOUD_PEAK) return null;
  return {
    code: 'loud',
    weight: 'note',
    values: { peak: sound.truePeak.toFixed(1), limit: LOUD_PEAK },
    offers: [],
    repaired: false,
  };
};
