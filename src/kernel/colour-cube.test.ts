import { execFileSync } from 'node:child_process';
import { readFileSync } from 'node:fs';
import fc from 'fast-check';
import { type ColourFacts, conversion } from './colour';
import { colourChange, createColourCube, mapCodes } from './colour-cube';
import { Kernel } from './kernel';
import { readPlane } from './test-pictures';
import { hlgToLight, lightToPq, pqToLight, applyRolloff } from './transfer';

const BT2020: ColourFacts = {
  matrix: 'bt2020-ncl',
  primaries: 'bt2020',
  transfer: 'bt709',
  fullRange: false,
};
const PQ: ColourFacts = { ...BT2020, transfer: 'pq' };
const HLG: ColourFacts = { ...BT2020, transfer: 'hlg' };
type Triple = [number, number, number];

let kernel: Kernel;
beforeAll(async () => {
  kernel = await Kernel.load(readFileSync('src/kernel/kernel.wasm'));
});

/** Runs the kernel on a flat picture of one colour. */
function flat(facts: ColourFacts, codes: Triple): number[] {
  const picture = kernel.target(16, 8);
  picture.planes.forEach((plane, i) =>
    kernel.bytes(plane.offset, plane.stride * plane.height).fill(codes[i]!),
  );
  kernel.map(picture, createColourCube(facts)!);
  return [0, 1, 2].map((index) => readPlane(kernel, picture, index).data[5]!);
}

/** Colours that a picture may have: red, green and blue signals of a system, coded in limited range. */
const colours = [0.05, 0.3, 0.55, 0.8, 1].flatMap((a) =>
  [0.05, 0.4, 0.75].flatMap((b) => [0.1, 0.5, 0.9].map((c): Triple => [a, b, c])),
);
function coded2020([red, green, blue]: Triple): Triple {
  const luma = 0.2627 * red + 0.678 * green + 0.0593 * blue;
  const round = (value: number) => Math.round(value);
  return [
    round(16 + 219 * luma),
    round(128 + (224 * (blue - luma)) / 1.8814),
    round(128 + (224 * (red - luma)) / 1.4746),
  ];
}

describe('transfer functions', () => {
  // Source: ITU-R BT.2408-7, table 1: reference white 203 cd/m² is 58 % PQ and 75 % HLG; 1000 cd/m² is 75 % PQ.
  it('have the signals of reference white', () => {
    expect(lightToPq(203)).toBeCloseTo(0.58, 2);
    expect(lightToPq(1000)).toBeCloseTo(0.75, 2);
    expect(pqToLight(lightToPq(48))).toBeCloseTo(48, 6);
    expect(hlgToLight([0.75, 0.75, 0.75])[0]).toBeCloseTo(203, 0);
    expect(hlgToLight([1, 1, 1])[0]).toBeCloseTo(1000, 0);
  });

  it('roll off to the peak, as it was below the knee, and never the other way round', () => {
    expect(applyRolloff(1000, 1000, 100)).toBeCloseTo(100, 3);
    expect(applyRolloff(5000, 1000, 100)).toBeCloseTo(100, 3);
    expect(applyRolloff(10, 1000, 100)).toBe(10);
    const lights = Array.from({ length: 400 }, (_, i) => applyRolloff(i * 3, 1000, 100));
    lights.slice(1).forEach((light, i) => expect(light).toBeGreaterThanOrEqual(lights[i]!));
  });
});

describe('a cube', () => {
  it('is wanted for other light and other primaries only', () => {
    expect(
      [PQ, HLG, BT2020, { matrix: 'bt2020-ncl' }, { matrix: 'smpte170m', primaries: 'smpte170m' }, {}].map(
        colourChange,
      ),
    ).toEqual(['pq', 'hlg', 'primaries', 'primaries', 'none', 'none']);
    expect(conversion({ matrix: 'smpte170m' })).not.toBeNull();
  });

  // Judged from outside: the zimg library in ffmpeg's zscale.
  it('converts the primaries of BT.2020 as zscale does', () => {
    // Of colours that BT.709 has as well: others are clipped here, and not there.
    const gentle = colours.map((colour) => {
      const grey = (colour[0] + colour[1] + colour[2]) / 3;
      return colour.map((value) => 0.8 * grey + 0.2 * value) as Triple;
    });
    const inside = gentle.filter((colour) => Math.min(...colour) > 0.7 * Math.max(...colour)).map(coded2020);
    expect(inside.length).toBeGreaterThan(10);
    const planes = [0, 1, 2].map((i) =>
      Buffer.from(inside.flatMap((codes) => Array.from({ length: 64 }, () => codes[i]!))),
    );
    const size = `8x${inside.length * 8}`;
    const from = 'matrixin=2020_ncl:primariesin=2020:transferin=2020_10:rangein=limited';
    const to = 'matrix=709:primaries=709:transfer=709:range=limited';
    const args = ['-v', 'error', '-f', 'rawvideo', '-pix_fmt', 'yuv444p', '-s', size, '-i', '-'];
    const out = execFileSync(
      'ffmpeg',
      [...args, '-vf', `zscale=${from}:${to}`, '-f', 'rawvideo', '-pix_fmt', 'yuv444p', '-'],
      {
        input: Buffer.concat(planes),
      },
    );
    inside.forEach((codes, n) => {
      const theirs = [0, 1, 2].map((i) => out[i * inside.length * 64 + n * 64 + 27]!);
      flat(BT2020, codes).forEach((code, i) => expect(Math.abs(code - theirs[i]!)).toBeLessThanOrEqual(2));
    });
  });

  // Where a colour is clipped the cube bends between two nodes: hence the greatest difference.
  it.each([
    ['PQ', PQ],
    ['HLG', HLG],
    ['BT.2020', BT2020],
    ['PQ in full range', { ...PQ, fullRange: true }],
  ])('between its nodes is what it stands for, to a level on average: %s', (_, facts) => {
    let off = 0;
    let count = 0;
    for (const codes of colours.map(coded2020)) {
      const exact = mapCodes(facts, codes);
      flat(facts, codes).forEach((code, i) => {
        const wanted = Math.max(0, Math.min(255, exact[i]!));
        off += Math.abs(code - wanted);
        count += 1;
        expect(Math.abs(code - wanted)).toBeLessThanOrEqual(12);
      });
    }
    expect(off / count).toBeLessThan(1);
  });

  it('keeps grey grey, black black, and gives white to the brightest', () => {
    for (const facts of [PQ, HLG, BT2020]) {
      expect(flat(facts, [16, 128, 128])).toEqual([16, 128, 128]);
      fc.assert(
        fc.property(fc.integer({ min: 16, max: 235 }), (luma) => {
          const [, cb, cr] = flat(facts, [luma, 128, 128]);
          expect(Math.max(Math.abs(cb! - 128), Math.abs(cr! - 128))).toBeLessThanOrEqual(1);
        }),
        { numRuns: 50 },
      );
    }
    // 75 % PQ is 1000 cd/m², the brightest that is shown; 58 % is reference white.
    expect(flat(PQ, [16 + Math.round(0.752 * 219), 128, 128])[0]).toBeGreaterThanOrEqual(233);
    expect(flat(HLG, [235, 128, 128])[0]).toBeGreaterThanOrEqual(233);
    const white = flat(PQ, [16 + Math.round(0.58 * 219), 128, 128])[0]!;
    expect(white).toBeGreaterThan(180);
    expect(white).toBeLessThan(225);
  });
});
