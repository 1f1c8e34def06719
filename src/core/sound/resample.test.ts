import { execFileSync } from 'node:child_process';
import { mapChannels } from './channels';
import { Resampler } from './resample';
import { findPauses, PEAKS_A_SECOND, Waveform } from './waveform';

const sine = (frequency: number, rate: number, length: number): Float32Array<ArrayBuffer> =>
  Float32Array.from({ length }, (_, i) => Math.sin((2 * Math.PI * frequency * i) / rate));

function converted(input: Float32Array<ArrayBuffer>, from: number, to: number, piece: number): number[] {
  const resampler = new Resampler(from, to, 1);
  const out: number[] = [];
  for (let sample = 0; sample < input.length; sample += piece)
    out.push(...(resampler.push([input.slice(sample, sample + piece)])[0] ?? []));
  return [...out, ...(resampler.finish()[0] ?? [])];
}

describe('resampling', () => {
  it.each([
    [44100, 48000],
    [48000, 44100],
    [96000, 48000],
    [22050, 48000],
    [8000, 48000],
  ])('from %i to %i gives the same sine in the same place', (from, to) => {
    const frequency = Math.min(from, to) * 0.2;
    const out = converted(sine(frequency, from, from / 4), from, to, 1000);
    const wanted = sine(frequency, to, to / 4);
    expect(Math.abs(out.length - wanted.length)).toBeLessThanOrEqual(to / from + 2);
    let worst = 0;
    for (let i = 400; i < wanted.length - 400; i++)
      worst = Math.max(worst, Math.abs((out[i] ?? 9) - wanted[i]!));
    // 70 dB below full scale.
    expect(worst).toBeLessThan(3.2e-4);
  });

  it('keeps what the lower rate cannot hold out of it', () => {
    const out = converted(sine(30000, 96000, 24000), 96000, 48000, 4096);
    expect(Math.max(...out.slice(400, -400).map(Math.abs))).toBeLessThan(1e-3);
  });

  it('does not depend on the pieces that it is given', () => {
    const input = sine(440, 44100, 5000);
    expect(converted(input, 44100, 48000, 37)).toEqual(converted(input, 44100, 48000, 5000));
  });
});

// Source: ITU-R BS.775-3 Annex 4, table 2.
describe('channels', () => {
  const constant = (value: number) => Float32Array.of(value);
  it('fold from 5.1 with centre and surrounds at −3 dB and no low channel', () => {
    const planes = [0.1, 0.2, 0.3, 0.9, 0.5, 0.6].map(constant);
    const [left, right] = mapChannels(planes, 2);
    expect(left?.[0]).toBeCloseTo(0.1 + (0.3 + 0.5) * Math.SQRT1_2, 6);
    expect(right?.[0]).toBeCloseTo(0.2 + (0.3 + 0.6) * Math.SQRT1_2, 6);
  });
  it.each([
    ['3.0', 3],
    ['quad', 4],
    ['5.0', 5],
    ['5.1', 6],
    ['6.1', 7],
    ['7.1', 8],
  ])('fold from %s as ffmpeg folds them, up to its scale', (layout, count) => {
    const gains = Array.from({ length: count }, (_, channel) => {
      const levels = Array.from({ length: count }, (_, n) => (n === channel ? 0.25 : 0)).join('|');
      const source = `aevalsrc=${levels}:s=48000:d=0.1:c=${layout}`;
      const args = ['-v', 'error', '-f', 'lavfi', '-i', source, '-ac', '2', '-f', 'f32le', '-'];
      const out = execFileSync('ffmpeg', args);
      const theirs = [out.readFloatLE(8 * 1000) / 0.25, out.readFloatLE(8 * 1000 + 4) / 0.25];
      const planes = Array.from({ length: count }, (_, n) => constant(n === channel ? 1 : 0));
      return { theirs, ours: mapChannels(planes, 2).map((plane) => plane[0] as number) };
    });
    const scale = gains[0]!.theirs[0] as number;
    for (const { theirs, ours } of gains) {
      theirs.forEach((gain, side) => expect(ours[side]).toBeCloseTo(gain / scale, 3));
    }
  });
  it('fold four of AAC from three in front and one at the back', () => {
    const planes = [0, 0, 0, 1].map(constant);
    expect(mapChannels(planes, 2, 'aac').map((plane) => plane[0])).toEqual(
      [0.5000000000000001, 0.5000000000000001].map(Math.fround),
    );
  });
  it('double from one, and pass where they are right', () => {
    expect(mapChannels([constant(0.5)], 2).map((plane) => plane[0])).toEqual([0.5, 0.5]);
    const planes = [constant(0.5), constant(0.25)];
    expect(mapChannels(planes, 2)).toBe(planes);
    expect(mapChannels(planes, 1)[0]?.[0]).toBeCloseTo(0.375, 6);
  });
});

describe('a waveform', () => {
  const speech = (rate: number) => {
    // One second of sound, half a second of near silence, four times.
    const wave = new Waveform(rate);
    for (let i = 0; i < 4; i++) {
      wave.push([sine(200, rate, rate)]);
      wave.push([sine(200, rate, rate / 2).map((value) => value * 0.003)]);
    }
    return wave.finish();
  };
  it('has fifty peaks a second on a scale of 60 dB', () => {
    const peaks = speech(44100);
    expect(peaks).toHaveLength(6 * PEAKS_A_SECOND);
    expect(peaks[10]).toBe(255);
    expect(peaks[60]).toBeCloseTo(255 * (1 - 50.5 / 60), -1);
  });
  it('finds its pauses, and none in steady sound', () => {
    const pauses = findPauses(speech(48000));
    expect(pauses).toHaveLength(4);
    pauses.forEach(({ from, to }, i) => {
      expect(from).toBeCloseTo(1.5 * i + 1, 1);
      expect(to).toBeCloseTo(1.5 * i + 1.5, 1);
    });
    const steady = new Waveform(48000);
    steady.push([sine(200, 48000, 96000)]);
    expect(findPauses(steady.finish())).toEqual([]);
  });
});
