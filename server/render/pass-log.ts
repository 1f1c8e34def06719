/*
 * What libx264 writes down of a first pass, and how it would spend bits by that. Its model of the bits of a frame at a
 * quantiser, and the factors between kinds of frames, are those of its rate control (x264, ratecontrol.c; from memory).
 */

/** A frame as a first pass had it. */
interface Frame {
  kind: 'I' | 'P' | 'B';
  /** Step of its quantiser. */
  step: number;
  /** Bits of its residual, of its motion, and of the rest. */
  residual: number;
  motion: number;
  rest: number;
}

/** A first pass of a segment: its frames, and how long it is, in seconds. */
export interface PassLog {
  frames: readonly Frame[];
  seconds: number;
}

/** The step of a quantiser on the scale of H.264. */
const stepOf = (quantiser: number): number => 0.85 * 2 ** ((quantiser - 12) / 6);

/** How much coarser kinds of frames are made than a P frame. */
const COARSER = { I: 1 / 1.4, P: 1, B: 1.3 };

/** Reads a first pass's log. */
export function readPassLog(text: string, seconds: number): PassLog {
  const lines = text.matchAll(/ type:(\w) .*?\bq:([\d.]+) .*?\btex:(\d+) mv:(\d+) misc:(\d+)/g);
  const frames = [...lines].map(([, type = '', quantiser, residual, motion, rest]): Frame => {
    const kind = type.toUpperCase();
    return {
      kind: kind === 'I' || kind === 'B' ? kind : 'P',
      step: stepOf(Number(quantiser)),
      ...{ residual: Number(residual), motion: Number(motion), rest: Number(rest) },
    };
  });
  return { frames, seconds };
}

/** Bits of frames where a P frame has some step. */
const bitsAt = (frames: readonly Frame[], step: number): number =>
  frames.reduce((sum, { kind, step: old, residual, motion, rest }) => {
    const own = Math.max(0.1, step * COARSER[kind]);
    const moved = motion * Math.sqrt(Math.max(1, old) / Math.max(1, own));
    return sum + (residual + 0.1) * (old / own) ** 1.1 + moved + rest;
  }, 0);

/** Steps that are looked between, and how often that is halved. */
const STEPS = { least: stepOf(-12), most: stepOf(69), halvings: 50 };

/**
 * Video bits a second for each segment so that all are of one quality and the whole comes to a rate.
 * @param bits a second of the whole.
 */
export function sharedBits(logs: readonly PassLog[], bits: number): number[] {
  const whole = bits * logs.reduce((sum, { seconds }) => sum + seconds, 0);
  const all = logs.flatMap(({ frames }) => frames);
  let [fine, coarse] = [STEPS.least, STEPS.most];
  for (let n = 0; n < STEPS.halvings; n++) {
    const step = Math.sqrt(fine * coarse);
    if (bitsAt(all, step) > whole) fine = step;
    else coarse = step;
  }
  const spent = logs.map(({ frames }) => bitsAt(frames, coarse));
  const total = spent.reduce((sum, one) => sum + one, 0);
  // What the scale of quantisers cannot reach is shared out in the same proportion.
  return logs.map(({ seconds }, n) => (total > 0 ? ((spent[n] as number) * whole) / total / seconds : bits));
}
