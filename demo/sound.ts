import { chance } from './film/paint';

const RATE = 48000;

/** A small tune on a plucked string, in semitones over A3 and beats of half a second; our own. */
const TUNE: [semitone: number, beat: number][] = [
  [0, 0],
  [4, 1],
  [7, 2],
  [9, 3],
  [7, 4],
  [4, 5],
  [2, 6],
  [4, 7],
  [5, 8],
  [9, 9],
  [12, 10],
  [11, 11],
  [9, 12],
  [7, 13],
  [4, 14],
  [7, 15],
];
const BEAT = 0.5;

/** Smooth repeatable noise: low-passed white noise, one state per channel. */
function surf(seed: number, smooth: number): (n: number) => number {
  let state = 0;
  return (n) => (state += (chance(n * 2 + seed) * 2 - 1 - state) * smooth);
}

/**
 * The film's sound: surf that swells, wind, and the tune over it. Stereo 16-bit PCM at 48 kHz.
 * @param seconds length of the film.
 */
export function filmSound(seconds: number): Int16Array {
  const count = Math.round(seconds * RATE);
  const out = new Int16Array(count * 2);
  for (const channel of [0, 1]) {
    const low = surf(channel + 1, 0.03);
    const high = surf(channel + 71, 0.35);
    for (let n = 0; n < count; n++) {
      const t = n / RATE;
      const swell = 0.35 + 0.3 * Math.sin(t * 0.8 + channel * 0.6) ** 2;
      let value = swell * (low(n) * 1.6 + high(n) * 0.1);
      value += pluckedTune(t, channel) * 0.16;
      const fade = Math.min(1, t / 0.5, (seconds - t) / 1.5);
      out[n * 2 + channel] = Math.round(Math.max(-1, Math.min(1, value * fade * 0.8)) * 32767);
    }
  }
  return out;
}

function pluckedTune(t: number, channel: number): number {
  const loop = TUNE.length * BEAT;
  let value = 0;
  for (const [semitone, beat] of TUNE) {
    const age = (((t - beat * BEAT) % loop) + loop) % loop;
    if (age > 1.6 || t < beat * BEAT) continue;
    const pitch = 220 * 2 ** (semitone / 12);
    const pan = channel === 0 ? 1 - semitone / 40 : 0.7 + semitone / 40;
    for (let partial = 1; partial <= 4; partial++) {
      value +=
        (pan * Math.sin(2 * Math.PI * pitch * partial * age) * Math.exp(-age * (2.5 + partial))) / partial;
    }
  }
  return value;
}

/** A WAV file's bytes around stereo 16-bit PCM (RIFF WAVE, format tag 1). */
export function wavFile(samples: Int16Array): Buffer {
  const head = Buffer.alloc(44);
  const bytes = samples.byteLength;
  head.write('RIFF', 0);
  head.writeUInt32LE(36 + bytes, 4);
  head.write('WAVEfmt ', 8);
  head.writeUInt32LE(16, 16);
  head.writeUInt16LE(1, 20);
  head.writeUInt16LE(2, 22);
  head.writeUInt32LE(RATE, 24);
  head.writeUInt32LE(RATE * 4, 28);
  head.writeUInt16LE(4, 32);
  head.writeUInt16LE(16, 34);
  head.write('data', 36);
  head.writeUInt32LE(bytes, 40);
  return Buffer.concat([head, Buffer.from(samples.buffer)]);
}
