/*
 * What libx264 writes down of a first pass, and how it would spend bits by that. Its model of the bits of a frame at a
 * quantiser, and the factors between kinds of frames, are those of its rate control (x264, ratecontrol.c; from memory).
 */

import { sum } from '../../src/core/figures/sum';

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
const toStep = (quantiser: number): number => 0.85 * 2 ** ((quantiser - 12) / 6);

/** How much coarser kinds of frames are made than a P frame. */
const COARSER = { I: 1 / 1.4, P: 1, B: 1.3 };

/** Reads a first pass's log. */
export function readPassLog(text: string, seconds: number): PassLog {
  const lines = text.matchAll(/ type:(\w) .*?\bq:([\d.]+) .*?\btex:(\d+) mv:(\d+) misc:(\d+)/g);
  const frames = [...lines].map(([, type = '', quantiser, residual, motion, rest]): Frame => {
    const kind = type.toUpperCase();
    return {
      kind: kind === 'I' || kind === 'B' ? kind : 'P',
      step: toStep(Number(quantiser)),
      ...{ residual: Number(residual), motion: Number(motion), rest: Number(rest) },
    };
  });
  return { frames, seconds };
}

/** Bits of a frame where a P frame has some step. */
function computeBits({ kind, step: old, residual, motion, rest }: Frame, step: number): number {
  const own = Math.max(0.1, step * COARSER[kind]);
  const moved = motion * Math.sqrt(Math.max(1, old) / Math.max(1, own));
  return (residual + 0.1) * (old / own) ** 1.1 + moved + rest;
}

/** Steps that are looked between, and how often that is halved. */
const STEPS = { least: toStep(-12), most: toStep(69), halvings: 50 };

/** Bits of a segment and their cause. */
interface Share {
  /** Video bits a second. */
  bits: number;
  /** Bits of each of its pictures, in the order of decoding. */
  pictures: readonly number[];
}

/**
 * Shares bits out over segments so that all have one quality and the whole reaches a rate; none exceeds the
 * maximum rate, and what is cut off there goes to the others.
 * @param bits a second of the whole. @param maxBitrate a second of a segment.
 */
export function shareOut(logs: readonly PassLog[], bits: number, maxBitrate: number): Share[] {
  const wanted = bits * sum(logs.map(({ seconds }) => seconds));
  const full = new Map<PassLog, Share>();
  for (;;) {
    const others = logs.filter((log) => !full.has(log));
    const shares = evenly(others, wanted - maxBitrate * sum([...full.keys()].map(({ seconds }) => seconds)));
    const over = others.filter((_, n) => (shares[n] as Share).bits > maxBitrate);
    if (over.length === 0) return logs.map((log) => full.get(log) ?? (shares[others.indexOf(log)] as Share));
    for (const log of over) full.set(log, evenly([log], log.seconds * maxBitrate)[0] as Share);
  }
}

/** Bits of segments of one quality. @param bits of all of them. */
function evenly(logs: readonly PassLog[], bits: number): Share[] {
  const all = logs.flatMap(({ frames }) => frames);
  let [fine, coarse] = [STEPS.least, STEPS.most];
  for (let n = 0; n < STEPS.halvings; n++) {
    const step = Math.sqrt(fine * coarse);
    if (all.reduce((total, frame) => total + computeBits(frame, step), 0) > bits) fine = step;
    else coarse = step;
  }
  const spent = logs.map(({ frames }) => frames.map((frame) => computeBits(frame, coarse)));
  const total = sum(spent.map(sum));
  const long = sum(logs.map(({ seconds }) => seconds));
  // What the scale of quantisers cannot reach is shared out in the same proportion.
  return logs.map(({ seconds }, n) => {
    const pictures = (spent[n] ?? []).map((one) => (one * bits) / total);
    return { bits: total > 0 ? sum(pictures) / seconds : bits / long, pictures };
  });
}
