import fc from 'fast-check';
import type { Planes } from './channels';
import { Joiner } from './joins';
import { CEILING, PeakLimiter } from './limiter';
import { TruePeakMeter } from './true-peak';

const RATE = 48000;
const sound = (length: number, of: (i: number) => number): Planes[number] =>
  Float32Array.from({ length }, (_, i) => of(i));

/** Runs a limiter on planes that are given piece by piece. */
function limited(planes: Planes, piece = 1000): Planes {
  const limiter = new PeakLimiter(RATE, planes.length);
  const pieces: Planes[] = [];
  for (let from = 0; from < planes[0]!.length; from += piece) {
    pieces.push(limiter.push(planes.map((plane) => plane.slice(from, from + piece))));
  }
  pieces.push(limiter.finish());
  return planes.map((_, channel) => Float32Array.from(pieces.flatMap((part) => [...part[channel]!])));
}

function peakOf(planes: Planes): number {
  const meter = new TruePeakMeter();
  meter.push(planes);
  return meter.finish().truePeak;
}

describe('the limiter', () => {
  it('passes what stays under the ceiling bit for bit, and as long as it was', () => {
    const quiet = sound(7001, (i) => 0.8 * Math.sin(i / 7));
    const loud = sound(7001, (i) => 0.6 * Math.cos(i / 3));
    expect(limited([quiet, loud], 333)).toEqual([quiet, loud]);
  });

  it.each([
    ['a sine between its samples', (i: number) => 1.3 * Math.sin((Math.PI / 2) * i + Math.PI / 4)],
    ['a fold at full scale', (i: number) => 2.41 * Math.sin(i / 9)],
    ['a single click', (i: number) => (i === 4000 ? 3 : 0.2 * Math.sin(i / 30))],
    ['noise', (i: number) => 1.9 * (((Math.sin(i * 12.9898) * 43758.5453) % 1) as number)],
  ])('holds the true peak under the ceiling: %s', (_, of) => {
    const out = limited([
      sound(24000, (i) => of(i) * Math.min(1, i / 500, (24000 - i) / 500)),
      sound(24000, () => 0),
    ]);
    expect(out[0]).toHaveLength(24000);
    expect(peakOf(out)).toBeLessThanOrEqual(CEILING);
    expect(peakOf(out)).toBeGreaterThan(CEILING - 1.5);
  });

  it('gives the same whatever pieces it is given', () => {
    const plane = sound(5000, (i) => 1.5 * Math.sin(i / 11) * Math.sin(i / 900));
    const whole = limited([plane], 5000);
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 1500 }), (piece) =>
        expect(limited([plane], piece)).toEqual(whole),
      ),
      { numRuns: 20 },
    );
  });

  it('is at rest again a moment after a peak', () => {
    const plane = sound(RATE, (i) => (i === 2000 ? 2 : 0.3 * Math.sin(i / 20)));
    const out = limited([plane])[0]!;
    expect(out.slice(1500, 1700)).toEqual(plane.slice(1500, 1700));
    expect(Math.abs(out[2000]!)).toBeLessThan(0.9);
    expect(out.slice(RATE - 2000)).toEqual(plane.slice(RATE - 2000));
  });
});

describe('a join', () => {
  it('leaves sound that goes on as it is, and has no step where another begins', () => {
    const joiner = new Joiner();
    const goesOn = sound(1000, (i) => Math.sin(i / 50));
    expect(joiner.begin([goesOn.slice(0, 500)])).toEqual([goesOn.slice(0, 500)]);
    joiner.end([goesOn.slice(500, 740)]);
    joiner
      .begin([goesOn.slice(500)])[0]!
      .forEach((value, i) => expect(value).toBeCloseTo(goesOn[500 + i]!, 6));
    joiner.end([sound(240, () => 0.5)]);
    const next = joiner.begin([sound(500, () => -0.5)])[0]!;
    const steps = [0.5, ...next].slice(0, -1).map((value, i) => Math.abs(next[i]! - value));
    expect(Math.max(...steps)).toBeLessThan(0.01);
    expect(next[499]).toBe(-0.5);
  });
});
