import { defaultBitRate } from './bit-rate';
import { containerBytes } from './container-bytes';
import { codecString } from './codec-string';
import { lowestLevel } from './level';

const tall = { width: 1080, height: 1920 };
const FILM = { num: 24000, den: 1001 };

describe('level', () => {
  // ITU-T H.264 (08/2021) Annex A, table A-1: 68×120 macroblocks are 8160, within 8192 of level 4.
  it.each([
    [tall, FILM, 8e6, 40],
    [tall, { num: 30, den: 1 }, 20e6, 40],
    [tall, { num: 30, den: 1 }, 30e6, 41],
    [tall, { num: 60, den: 1 }, 8e6, 42],
    [{ width: 1280, height: 720 }, { num: 30, den: 1 }, 8e6, 31],
    [{ width: 640, height: 360 }, { num: 30, den: 1 }, 2e6, 30],
    [{ width: 3840, height: 2160 }, { num: 30, den: 1 }, 40e6, 51],
    [{ width: 3840, height: 2160 }, { num: 60, den: 1 }, 40e6, 52],
  ])('of %p at %p and %d bit/s is %d', (size, rate, bits, level) => {
    expect(lowestLevel(size, rate, bits)).toBe(level);
  });

  it('does not exist past 5.2', () => {
    expect(() => lowestLevel({ width: 4096, height: 4096 }, { num: 120, den: 1 }, 1e6)).toThrow(RangeError);
  });

  // RFC 6381 section 3.3: profile_idc, constraint flags, level_idc in hex.
  it('is written into the codec string', () => {
    const of = (level: number, profile: 'main' | 'high') =>
      codecString({ codec: 'avc', profile, level }, tall, FILM);
    expect([of(40, 'high'), of(52, 'high'), of(31, 'main')]).toEqual([
      'avc1.640028',
      'avc1.640034',
      'avc1.4d001f',
    ]);
  });
});

const capped = (maxBytes: number, maxBitrate: number | null = null) => ({
  mostBytes: maxBytes,
  mostBits: maxBitrate,
  audioBits: 160_000,
});

/** An MP4 of a minute with sound of 160 kb/s at 48 kHz. */
const bytesOfMinute = (videoBits: number, frames: number): number =>
  ((videoBits + 160_000) * 60) / 8 + containerBytes('mp4', frames + (60 * 48_000) / 1024);

describe('bit rate', () => {
  // About 40 MB for 60 s is a good square post, so 5.3 Mb/s (common practice, no source).
  it('lies near common practice for a square post of 60 s', () => {
    const square = { width: 1080, height: 1080 };
    const { bits } = defaultBitRate(square, { num: 30, den: 1 }, 16e6, capped(1e8), 60);
    const bytes = bytesOfMinute(bits, 1800);
    expect(bytes / 1e6).toBeGreaterThan(30);
    expect(bytes / 1e6).toBeLessThan(50);
  });

  it('says what decided it', () => {
    const chosen = (master: number, cap: number) => defaultBitRate(tall, FILM, master, capped(cap), 60);
    expect(chosen(20e6, 1e9)).toEqual({ bits: 8_000_000, reason: 'picture' });
    expect(chosen(3e6, 1e9)).toEqual({ bits: 3_000_000, reason: 'master' });
    expect(chosen(0, 1e9)).toEqual({ bits: 8_000_000, reason: 'picture' });
    expect(chosen(20e6, 2e7)).toMatchObject({ reason: 'cap' });
    expect(defaultBitRate({ width: 640, height: 640 }, FILM, 20e6, capped(1e9), 60)).toEqual({
      bits: 5_000_000,
      reason: 'floor',
    });
  });

  it('is not over what the outlet takes', () => {
    const chosen = defaultBitRate(tall, FILM, 20e6, capped(1e9, 6_000_000), 60);
    expect(chosen).toEqual({ bits: 6_000_000, reason: 'cap' });
  });

  it('keeps a capped file under the cap', () => {
    const { bits } = defaultBitRate(tall, FILM, 20e6, capped(2e7), 60);
    expect(bytesOfMinute(bits, 1438)).toBeLessThan(2e7);
  });
});
