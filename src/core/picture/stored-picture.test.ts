import { execFileSync } from 'node:child_process';
import fc from 'fast-check';
import { makeClip } from '../../../tests/make-clip';
import { depthByCodecString, readSequence, readSequenceFacts } from './h264';
import { toPicture, uprightRect } from './live-area';
import { nearestAspect, uprightSize } from './orientation';

/** The sequence parameter set of a real stream. */
function sequence(name: string, options: Parameters<typeof makeClip>[1]): Uint8Array {
  const file = makeClip(name, options);
  const stream = execFileSync('ffmpeg', [
    '-v',
    'error',
    '-i',
    file,
    '-c',
    'copy',
    '-an',
    '-bsf:v',
    'h264_mp4toannexb',
    '-f',
    'h264',
    '-',
  ]);
  for (let offset = 0; offset + 4 < stream.length; offset++) {
    if (
      stream[offset] !== 0 ||
      stream[offset + 1] !== 0 ||
      stream[offset + 2] !== 1 ||
      ((stream[offset + 3] ?? 0) & 31) !== 7
    )
      continue;
    const end = stream.indexOf(Buffer.from([0, 0, 1]), offset + 3);
    return new Uint8Array(stream.subarray(offset + 3, end < 0 ? undefined : end));
  }
  throw new Error('the stream has no sequence parameter set');
}

// Streams of a real encoder; what they hold is what it was told.
describe('a sequence parameter set', () => {
  it.each([
    ['plain.mp4', {}, { depth: 8, interlaced: false, chromaFormat: 1 }],
    ['ten.mp4', { pixels: 'yuv420p10le' }, { depth: 10, interlaced: false, chromaFormat: 1 }],
    ['wide-chroma.mp4', { pixels: 'yuv422p' }, { depth: 8, interlaced: false, chromaFormat: 2 }],
    ['full-chroma.mp4', { pixels: 'yuv444p' }, { depth: 8, interlaced: false, chromaFormat: 3 }],
    ['fields.mp4', { output: ['-flags', '+ilme+ildct'] }, { depth: 8, interlaced: true, chromaFormat: 1 }],
    [
      'baseline.mp4',
      { output: ['-profile:v', 'baseline', '-bf', '0'] },
      { depth: 8, interlaced: false, chromaFormat: 1 },
    ],
  ])('of %s is read', (name, options, facts) => {
    const unit = sequence(name, options);
    expect(readSequence(unit)).toEqual(facts);
    const record = new Uint8Array([1, 100, 0, 40, 0xff, 0xe1, unit.length >> 8, unit.length & 255, ...unit]);
    expect(readSequenceFacts(record)).toEqual(facts);
  });

  it('that is damaged is none, whatever it holds', () => {
    fc.assert(
      fc.property(fc.uint8Array({ maxLength: 60 }), (bytes) => {
        const facts = readSequence(bytes);
        if (facts) expect(facts.depth).toBeGreaterThanOrEqual(8);
        expect(() => readSequenceFacts(bytes)).not.toThrow();
      }),
    );
    expect(readSequence(new Uint8Array([0x67, 100, 0, 40]))).toBeNull();
  });

  it('is not needed where the codec string tells the depth', () => {
    expect(
      ['vp09.02.10.10', 'av01.0.04M.08', 'vp8', 'hev1.2.4.L93', 'avc1.640028'].map(depthByCodecString),
    ).toEqual([10, 8, 8, 10, null]);
  });
});

describe('a stored picture', () => {
  const turns = fc.constantFrom(0 as const, 90 as const, 180 as const, 270 as const);
  const unit = fc.double({ min: 0, max: 0.5, noNaN: true });

  it('keeps every sample when its pixels are not square', () => {
    expect(uprightSize({ width: 640, height: 240 }, { num: 1, den: 2 }, 0)).toEqual({
      width: 640,
      height: 480,
    });
    expect(uprightSize({ width: 640, height: 240 }, { num: 1, den: 2 }, 90)).toEqual({
      width: 480,
      height: 640,
    });
  });

  it('has the aspect that a rounded display width means', () => {
    // 720 samples at 16:11 are 1047.3 wide; a file that says 1047 says 349:240.
    expect(nearestAspect({ num: 349, den: 240 }, 720)).toEqual({ num: 16, den: 11 });
    expect(nearestAspect({ num: 20, den: 27 }, 1920)).toEqual({ num: 20, den: 27 });
  });

  it('keeps the area of a rectangle however it is turned, inside the picture', () => {
    fc.assert(
      fc.property(unit, unit, unit, unit, turns, fc.boolean(), (x, y, w, h, rotation, flip) => {
        const rect = { x, y, width: w + 0.01, height: h + 0.01 };
        const shown = uprightRect(
          { ...rect, width: Math.min(rect.width, 1 - x), height: Math.min(rect.height, 1 - y) },
          { rotation, flip },
        );
        expect(shown.x).toBeGreaterThanOrEqual(-1e-9);
        expect(shown.y + shown.height).toBeLessThanOrEqual(1 + 1e-9);
        const area = Math.min(rect.width, 1 - x) * Math.min(rect.height, 1 - y);
        expect(shown.width * shown.height).toBeCloseTo(area, 9);
      }),
    );
    expect(
      toPicture({ x: 0.5, y: 0, width: 0.5, height: 1 }, { x: 0.2, y: 0.1, width: 0.6, height: 0.8 }),
    ).toEqual({ x: 0.5, y: 0.1, width: 0.3, height: 0.8 });
  });
});
