import type { Alignment } from './alignment';
import { factRows, type FilmFacts, type ReturnedFile, VERDICTS, judgeReturned } from './returned';
import { computeCorrelation, isAudible } from './sound-likeness';

const sent: FilmFacts = {
  ...{ bytes: 9e6, sha256: 'a', width: 1080, height: 1920, frames: 240, rate: 24, codec: 'avc', bits: 8e6 },
  ...{ pictureHash: 'p', sound: { hash: 's', codec: 'aac', sampleRate: 48_000, channels: 2 } },
};
const STANDING = { quarters: 0, mirrored: false } as const;
const returned = (got: Partial<FilmFacts>, more: Partial<ReturnedFile> = {}): ReturnedFile => ({
  sent,
  got: { ...sent, sha256: 'b', ...got },
  ...{ alignment: null, ssim: null, heard: 1, audible: { sent: true, got: true } },
  ...more,
});
const kinds = (one: ReturnedFile) => judgeReturned(one).changes.map(({ kind }) => kind);
const whole = (frames: number): Alignment => ({
  ...{ turn: STANDING, difference: 2, runs: [{ from: 0, to: frames, sent: 0 }] },
  missing: { start: 0, end: 0, between: 0 },
});
const again = { pictureHash: 'q', bits: 2e6 };
const ssim = { mean: 0.97, worst: 0.95, frame: 7, frames: 16 };

describe('what came back', () => {
  it('is the export, or the export in another file', () => {
    expect(judgeReturned({ ...returned({}), got: sent }).verdict).toBe('same');
    expect(judgeReturned(returned({}))).toEqual({ verdict: 'restamped', changes: [] });
  });

  it('is another film where no frame is like any', () => {
    expect(judgeReturned(returned(again, { alignment: { ...whole(240), difference: 40 } })).verdict).toBe(
      'other',
    );
  });

  it('was made smaller, or of another shape', () => {
    const small = { ...again, width: 540, height: 960 };
    expect(kinds(returned(small, { alignment: whole(240), ssim }))).toEqual(['smaller', 'compressed']);
    const wide = { ...again, width: 1920, height: 1080 };
    expect(kinds(returned(wide, { alignment: whole(240), ssim }))).toEqual(['reshaped', 'compressed']);
    // What was turned is not of another shape.
    const turned = { ...whole(240), turn: { quarters: 3, mirrored: false } as const };
    const [turn] = judgeReturned(returned(wide, { alignment: turned, ssim })).changes;
    expect(turn?.words).toBe('It was turned by 90°.');
  });

  it('has fewer frames, which is no cut', () => {
    const slow = { ...again, rate: 12, frames: 120 };
    expect(kinds(returned(slow, { alignment: whole(120), ssim }))).toEqual(['slower', 'compressed']);
    const pulled = { ...again, rate: 23.976, frames: 240 };
    expect(kinds(returned(pulled, { alignment: whole(240), ssim }))).toEqual(['compressed']);
  });

  it('was cut, and by how many frames where', () => {
    const missing = { start: 3, between: 7, end: 1 };
    const cut = returned({ ...again, frames: 229 }, { alignment: { ...whole(229), missing }, ssim });
    expect(judgeReturned(cut).changes.map(({ words }) => words)).toEqual([
      'It was cut: 3 frames at the beginning, 7 frames in between, 1 frame at the end.',
      'Its picture was compressed again: 2.0 Mb/s; 8.0 Mb/s were sent. Likeness (SSIM) of 16 frames: 0.970, the least 0.950.',
    ]);
    // Cut off without being coded again.
    const same = { mean: 1, worst: 1, frame: 0, frames: 16 };
    expect(
      kinds(returned({ ...again, frames: 229 }, { alignment: { ...whole(229), missing }, ssim: same })),
    ).toEqual(['cut']);
  });

  it('plays at another speed, or longer', () => {
    expect(kinds(returned({ ...again, rate: 12 }, { alignment: whole(240), ssim }))).toEqual([
      'speed',
      'compressed',
    ]);
    const [first] = judgeReturned(
      returned({ ...again, frames: 264 }, { alignment: whole(264), ssim }),
    ).changes;
    expect(first?.words).toBe('It is 1.00 s longer.');
  });

  it('was muted, or has another sound, or the same compressed', () => {
    const other = { sound: { ...sent.sound!, hash: 't' } };
    expect(kinds(returned({ sound: null }))).toEqual(['muted']);
    expect(kinds(returned(other, { audible: { sent: true, got: false } }))).toEqual(['muted']);
    expect(kinds(returned(other, { heard: 0.2 }))).toEqual(['other-sound']);
    // One that cannot be decoded here is not said to be silence.
    const unheard = { audible: { sent: true, got: null }, heard: null };
    expect(kinds(returned(other, unheard))).toEqual(['sound-compressed']);
    expect(kinds(returned(other, { heard: 0.95 }))).toEqual(['sound-compressed']);
    expect(
      kinds({ ...returned({}), sent: { ...sent, sound: null }, audible: { sent: false, got: true } }),
    ).toEqual(['other-sound']);
  });
});

describe('the facts of both', () => {
  it('stand side by side, and say what is not there', () => {
    const rows = factRows({ sent, got: { ...sent, sound: null, codec: 'vp9', sha256: 'b'.repeat(64) } });
    expect(rows.find(({ what }) => what === 'Sound')).toMatchObject({
      sent: 'AAC 48 kHz, 2 channels',
      got: 'none',
    });
    expect(rows.find(({ what }) => what === 'Picture')).toMatchObject({ got: 'VP9, 8.0 Mb/s' });
    for (const words of [...Object.values(VERDICTS), ...rows.flatMap(({ sent: one, got }) => [one, got])])
      expect(words).not.toMatch(/undefined|NaN|null/);
  });
});

describe('two sounds', () => {
  const wave = Float32Array.from({ length: 100 }, (_, n) => 0.1 + 0.05 * Math.sin(n / 5));
  it('rise and fall together, or not', () => {
    expect(
      computeCorrelation(
        wave,
        wave.map((level) => level * 0.5),
      ),
    ).toBeCloseTo(1, 5);
    expect(computeCorrelation(wave, wave.slice(7), 7)).toBeCloseTo(1, 5);
    expect(
      computeCorrelation(
        wave,
        wave.map((level) => 0.3 - level),
      ),
    ).toBeCloseTo(-1, 5);
    expect(
      computeCorrelation(
        wave,
        wave.map(() => 0.1),
      ),
    ).toBeNull();
  });
  it('are heard, or are silence', () => {
    expect([isAudible(wave), isAudible(wave.map(() => 0.0005)), isAudible(null)]).toEqual([
      true,
      false,
      false,
    ]);
  });
});
