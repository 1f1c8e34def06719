import { seeded } from '../../../tests/soak';
import { adviseBitrate, adviceSentence } from './advice';
import { FrameJudge, chooseFrames, toTrialPoint } from './frame-judge';
import type { ClipPiece, RateTrial, TrialPoint } from './rate-trial';

const rung = { width: 1080, height: 1920, bits: 6e6 };
const point = (bits: number, ssim: number, banding = 0): TrialPoint => ({
  ...{ bits, came: bits, ssim, psnr: 38, moving: null, banding },
  worst: { role: 'hardest', frame: 1, ssim },
});
const trial = (...ssims: number[]): Pick<RateTrial, 'points' | 'rung'> => ({
  rung,
  points: ssims.map((ssim, n) => point([3e6, 6e6, 9e6, 13.4e6, 20e6, 30e6][n]!, ssim)),
});

describe('the advice of a trial', () => {
  it('is the least rate from which more gains next to nothing', () => {
    const { knee, open, ssim } = adviseBitrate(trial(0.9, 0.94, 0.959, 0.9601, 0.9605, 0.961));
    // A tenth of 0.061 is left to gain: 0.9549 is reached between 6 and 9 Mb/s.
    expect(knee).toBeGreaterThan(8e6);
    expect(knee).toBeLessThan(9e6);
    expect(ssim).toBeCloseTo(0.9549, 4);
    expect(open).toBe(false);
  });

  it('is the lowest rate where the outlet spoils all of it alike', () => {
    expect(adviseBitrate(trial(0.857, 0.857, 0.858, 0.858, 0.857, 0.858)).knee).toBe(3e6);
  });

  it('says that more would still gain where the curve does not flatten', () => {
    expect(adviseBitrate(trial(0.8, 0.83, 0.86, 0.89, 0.92, 0.95))).toMatchObject({ open: true });
  });

  it('does not follow what is mere chance: a point that falls is taken together with its neighbour', () => {
    const even = adviseBitrate(trial(0.9, 0.94, 0.95, 0.955, 0.957, 0.958)).knee;
    const uneven = adviseBitrate(trial(0.9, 0.94, 0.95, 0.957, 0.955, 0.958)).knee;
    expect(Math.abs(Math.log2(even / uneven))).toBeLessThan(0.4);
  });

  it('puts both schools beside each other', () => {
    const { kept, most } = adviseBitrate(trial(0.9, 0.94, 0.95, 0.955, 0.957, 0.958));
    expect([kept.bits, most.bits]).toEqual([6e6, 30e6]);
  });

  it('is one sentence', () => {
    const said = [
      trial(0.9, 0.94, 0.959, 0.9601, 0.9605, 0.961),
      trial(0.857, 0.857, 0.858, 0.858, 0.857, 0.858),
      trial(0.8, 0.83, 0.86, 0.89, 0.92, 0.95),
    ].map(adviceSentence);
    expect(said[0]).toMatch(/^Send 8\.\d Mb\/s: that survives the outlet better than 6\.0 Mb\/s/);
    expect(said[1]).toMatch(
      /^Send 3\.0 Mb\/s: the outlet keeps 6\.0 Mb\/s, and more gains a viewer nothing\.$/,
    );
    expect(said[2]).toMatch(/more bits still give a viewer a better picture/);
  });
});

describe('a judge of frames', () => {
  const [width, height] = [64, 64];
  const next = seeded(4);
  const plane = (at: (x: number, y: number) => number) => ({
    ...{ width, height },
    data: Uint8Array.from({ length: width * height }, (_, i) => at(i % width, Math.floor(i / width))),
  });
  const noise = () => plane(() => 60 + Math.floor(100 * next()));

  it('looks at one frame of four, each with the one before it', () => {
    expect(chooseFrames(10)).toEqual([1, 5, 9]);
    expect(chooseFrames(1)).toEqual([0]);
    const judge = new FrameJudge(10);
    expect([0, 1, 2, 4, 5].map((frame) => judge.wants(frame))).toEqual([true, true, false, true, true]);
  });

  it('finds the worst, and what became of fine detail that moves', () => {
    const judge = new FrameJudge(8);
    const still = plane((x) => 100 + (x % 2));
    const moving = noise();
    judge.show(1, still, still);
    judge.show(5, moving, noise());
    const look = judge.begin();
    expect(look.see(1, still)).toBe(true);
    expect(
      look.see(
        5,
        plane((x, y) => (moving.data[y * width + x]! + 110) >> 1),
      ),
    ).toBe(true);
    const { ssim, moving: found, worst } = look.score();
    expect(worst.frame).toBe(5);
    expect(found).toBeCloseTo(worst.ssim, 6);
    expect(ssim).toBeCloseTo((1 + worst.ssim) / 2, 6);
    expect(() => judge.begin().score()).toThrow(RangeError);
    expect(() => judge.begin().see(2, still)).toThrow(RangeError);
  });

  it('has nothing to say of movement where nothing moves', () => {
    const judge = new FrameJudge(4);
    const frame = noise();
    judge.show(1, frame, frame);
    const look = judge.begin();
    look.see(1, frame);
    expect(look.score()).toMatchObject({ ssim: 1, moving: null, psnr: 100 });
  });

  it('puts pieces together by how much of the clip is like each', () => {
    const piece = (role: ClipPiece['role'], weight: number): ClipPiece => ({
      ...{ role, weight },
      range: { master: 'master-1', in: 0, out: 48 },
    });
    const score = (ssim: number, banding: number) => ({
      ...{ ssim, psnr: 40, moving: null, banding },
      worst: { frame: 3, ssim: ssim - 0.1 },
    });
    const found = toTrialPoint(
      8e6,
      [piece('hardest', 0.25), piece('typical', 0.75)],
      [
        { score: score(0.8, 2), came: 16e6 },
        { score: score(0.9, 1), came: 6e6 },
      ],
    );
    expect(found).toMatchObject({ bits: 8e6, came: 8.5e6, banding: 2, worst: { role: 'hardest', frame: 3 } });
    expect(found.ssim).toBeCloseTo(0.875, 6);
  });
});
