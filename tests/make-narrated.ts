import { execFileSync } from 'node:child_process';
import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { random } from './random';

/** Spoken phrases, by a voice that is made by rule (eSpeak NG, Debian's `espeak-ng`). */
const PHRASES = [
  'Every spring the wind comes back to the bay.',
  'With it come the kites.',
  'Some are small.',
  'Others are as large as a house.',
  'It takes six people to hold them down.',
  'The day begins at noon.',
  'Bring a coat.',
  'Watch the green one in the middle.',
  'Nobody knows how high it went.',
  'Then the rain came.',
  'We waited in the boat house.',
  'After an hour it was over.',
  'Look at that.',
  'The long red tail belongs to a dragon.',
  'Its maker has flown it for twenty years.',
  'Hold the line with both hands.',
  'Let it out slowly.',
  'Now run.',
  'The sun went down behind the hill.',
  'Come again next year.',
];
const RATE = 16_000;
/** A sample is heard from this level on. */
const HEARD = 0.02;

/** Samples of a phrase, mono. */
function spoken(text: string, voice: string): Float32Array {
  const file = path.join(mkdtempSync(path.join(tmpdir(), 'phrase-')), 'phrase.wav');
  execFileSync('espeak-ng', ['-v', voice, '-s', '150', '-w', file, text]);
  const raw = execFileSync('ffmpeg', [
    ...['-v', 'error', '-i', file, '-ac', '1', '-ar', String(RATE), '-f', 'f32le', '-'],
  ]);
  return new Float32Array(raw.buffer.slice(raw.byteOffset, raw.byteOffset + raw.byteLength));
}

/** A film whose sound has phrases between music and noise, and when each phrase is first heard, in seconds. */
export function makeNarrated(seed: number): { file: string; starts: number[]; phrases: readonly string[] } {
  const next = random(seed);
  const pieces: Float32Array[] = [];
  const starts: number[] = [];
  let length = 0;
  const add = (piece: Float32Array) => {
    pieces.push(piece);
    length += piece.length;
  };
  PHRASES.forEach((text, i) => {
    add(i % 2 === 0 ? noise(1.2 + next(), next) : music(1.2 + next(), i));
    const phrase = spoken(text, i % 3 === 2 ? 'en-gb+f3' : 'en-gb');
    const first = phrase.findIndex((sample) => Math.abs(sample) > HEARD);
    starts.push((length + first) / RATE);
    add(phrase);
  });
  add(noise(1.5, next));
  const sound = new Float32Array(length);
  pieces.reduce((at, piece) => {
    sound.set(piece, at);
    return at + piece.length;
  }, 0);
  const file = path.join(mkdtempSync(path.join(tmpdir(), 'narrated-')), 'narrated.mp4');
  const seconds = String(length / RATE);
  execFileSync(
    'ffmpeg',
    [
      ...['-y', '-v', 'error', '-f', 'lavfi', '-i', `color=c=teal:s=640x360:r=25:d=${seconds}`],
      ...['-f', 'f32le', '-ar', String(RATE), '-ac', '1', '-i', '-', '-ar', '48000'],
      ...['-c:v', 'libx264', '-preset', 'veryfast', '-c:a', 'aac', '-b:a', '128k', file],
    ],
    { input: Buffer.from(sound.buffer) },
  );
  return { file, starts, phrases: PHRASES };
}

/** Noise as of wind: each sample is near the one before it. */
function noise(seconds: number, next: () => number): Float32Array {
  let last = 0;
  return Float32Array.from(
    { length: Math.round(seconds * RATE) },
    () => (last = 0.97 * last + 0.012 * (next() - 0.5)),
  );
}

/** A chord that is plucked twice a second. */
function music(seconds: number, step: number): Float32Array {
  const root = 220 * 2 ** ((step % 5) / 12);
  return Float32Array.from({ length: Math.round(seconds * RATE) }, (_, n) => {
    const t = n / RATE;
    const fades = Math.exp(-4 * (t % 0.5));
    return [1, 1.25, 1.5].reduce((sum, by) => sum + 0.06 * fades * Math.sin(2 * Math.PI * root * by * t), 0);
  });
}
