import { kWeighting, LoudnessMeter } from './loudness';
import { TruePeakMeter } from './true-peak';

const RATE = 48000;

/** A sine on some channels: level in dBFS of its peak, or null for a silent channel. */
interface Tone {
  seconds: number;
  levels: (number | null)[];
}

/** Pushes tones of 1000 Hz one after another, in pieces as a decoder gives them. */
function pushTones(
  tones: readonly Tone[],
  push: (planes: Float32Array<ArrayBuffer>[]) => void,
  rate = RATE,
): void {
  let sample = 0;
  for (const { seconds, levels } of tones) {
    const total = Math.round(seconds * rate);
    for (let done = 0; done < total; done += 1024) {
      const length = Math.min(1024, total - done);
      push(
        levels.map((level) => {
          const gain = level === null ? 0 : 10 ** (level / 20);
          return Float32Array.from(
            { length },
            (_, i) => gain * Math.sin((2 * Math.PI * 1000 * (sample + done + i)) / rate),
          );
        }),
      );
    }
    sample += total;
  }
}

function measured(tones: readonly Tone[], rate = RATE): LoudnessMeter {
  const meter = new LoudnessMeter(rate, tones[0]!.levels.length);
  pushTones(tones, (planes) => meter.push(planes), rate);
  return meter;
}
const stereo = (level: number, seconds: number): Tone => ({ seconds, levels: [level, level] });

// Source: EBU Tech 3341 (2016), table 1, minimum requirements test signals.
describe('loudness of the EBU test signals', () => {
  it.each<[string, Tone[], number]>([
    ['1', [stereo(-23, 20)], -23],
    ['2', [stereo(-33, 20)], -33],
    ['3', [stereo(-36, 10), stereo(-23, 60), stereo(-36, 10)], -23],
    ['4', [stereo(-72, 10), stereo(-36, 10), stereo(-23, 60), stereo(-36, 10), stereo(-72, 10)], -23],
    ['5', [stereo(-26, 20), stereo(-20, 20.1), stereo(-26, 20)], -23],
    ['6, five channels', [{ seconds: 20, levels: [-28, -28, -24, -30, -30] }], -23],
  ])('signal %s: integrated', (_, tones, wanted) => {
    expect(Math.abs(measured(tones).integrated() - wanted)).toBeLessThanOrEqual(0.1);
  });

  // Source: ITU-R BS.1770-4, table 3 and annex 3 (from memory): sides 1.5 dB louder, the low channel not heard.
  it('counts the low channel of eight not at all, and those at the sides more', () => {
    const alone = (channel: number) => {
      const levels = Array.from({ length: 8 }, (_, i) => (i === channel ? -23 : null));
      return measured([{ seconds: 2, levels }]).integrated();
    };
    expect(alone(3)).toBe(-Infinity);
    expect([alone(4) - alone(0), alone(6) - alone(0)]).toEqual([0, expect.closeTo(1.49, 1)]);
  });

  it('signal 9: the short term stays at −23 once it is whole', () => {
    const tones = Array.from({ length: 5 }, () => [stereo(-20, 1.34), stereo(-30, 1.66)]).flat();
    for (const value of measured(tones).shortTerm()) expect(Math.abs(value + 23)).toBeLessThanOrEqual(0.1);
  });

  it('signal 12: the momentary loudness stays at −23 once it is whole', () => {
    const tones = Array.from({ length: 25 }, () => [stereo(-20, 0.18), stereo(-30, 0.22)]).flat();
    for (const value of measured(tones).momentary()) expect(Math.abs(value + 23)).toBeLessThanOrEqual(0.1);
  });

  it('signals 10 and 13: the greatest value of a tone after silence is −23', () => {
    for (let n = 0; n < 20; n += 5) {
      const meter = measured([stereo(-200, n * 0.15), stereo(-23, 3), stereo(-200, 1)]);
      expect(Math.abs(Math.max(...meter.shortTerm()) + 23)).toBeLessThanOrEqual(0.15);
      const short = measured([stereo(-200, n * 0.02), stereo(-23, 0.5), stereo(-200, 1)]);
      expect(Math.abs(Math.max(...short.momentary()) + 23)).toBeLessThanOrEqual(0.15);
    }
  });

  it('is the same at 44.1 kHz', () => {
    expect(measured([stereo(-23, 20)], 44100).integrated()).toBeCloseTo(-23, 1);
  });

  it('of silence is none', () => {
    expect(measured([{ seconds: 2, levels: [null, null] }]).integrated()).toBe(-Infinity);
  });
});

// Source: ITU-R BS.1770-4 Annex 1, tables 1 and 2 (48 kHz).
it('has the filters of the standard at 48 kHz', () => {
  const [shelf, highPass] = kWeighting(48000);
  const wanted: [number, number][] = [
    [shelf.b0, 1.53512485958697],
    [shelf.b1, -2.69169618940638],
    [shelf.b2, 1.19839281085285],
    [shelf.a1, -1.69065929318241],
    [shelf.a2, 0.73248077421585],
    [highPass.a1, -1.99004745483398],
    [highPass.a2, 0.99007225036621],
  ];
  for (const [ours, theirs] of wanted) expect(ours).toBeCloseTo(theirs, 6);
});

// Source: EBU Tech 3341 (2016), table 1, signals 15 to 19: within +0.2 and −0.4 dB.
describe('true peak', () => {
  const peakOf = (frequency: number, phase: number, amplitude: number) => {
    const meter = new TruePeakMeter();
    const plane = Float32Array.from({ length: RATE }, (_, i) => {
      // The signals fade in, so that no edge rings.
      const fade = Math.min(1, i / 2000, (RATE - i) / 2000);
      return fade * amplitude * Math.sin(2 * Math.PI * frequency * i + (phase * Math.PI) / 180);
    });
    for (let sample = 0; sample < RATE; sample += 1000)
      meter.push([plane.slice(sample, sample + 1000), plane.slice(sample, sample + 1000)]);
    return meter.finish();
  };
  it.each([
    ['15', 1 / 4, 0, 0.5, -6],
    ['16', 1 / 4, 45, 0.5, -6],
    ['17', 1 / 6, 60, 0.5, -6],
    ['18', 1 / 8, 67.5, 0.5, -6],
    ['19', 1 / 4, 45, 1.41, 3],
  ])('signal %s', (_, frequency, phase, amplitude, wanted) => {
    const { truePeak } = peakOf(frequency, phase, amplitude);
    expect(truePeak).toBeGreaterThanOrEqual(wanted - 0.4);
    expect(truePeak).toBeLessThanOrEqual(wanted + 0.2);
  });

  it('is over the greatest sample where that misses the crest', () => {
    const { truePeak, samplePeak } = peakOf(1 / 4, 45, 0.5);
    expect(samplePeak).toBeCloseTo(-9.03, 1);
    expect(truePeak - samplePeak).toBeGreaterThan(2.5);
  });
});
