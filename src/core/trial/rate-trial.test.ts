import { applyCommand } from '../job/commands/commands';
import { activeClip, type Job } from '../job/job';
import { testJob } from '../job/test-job';
import { createPassLookup, testPass } from '../job/test-pass';
import { SHIPPED_SHEETS } from '../outlets/shipped';
import { PLAIN_ENCODING, type Rate } from '../rate/encoding';
import { toJobEncodeSettings, computeBitrate } from '../check/check';
import { createBitrateAdvisor } from './bitrate-advisor';
import {
  toPieceSettings,
  type RateTrial,
  toRenditionSettings,
  trialKey,
  trialOrder,
  trialPlans,
} from './rate-trial';

const sheets = [...SHIPPED_SHEETS];
/** A second that is hard, then easy ones. */
const uneven = Array.from({ length: 42 }, (_, second) => (second < 2 ? 40e6 : second < 30 ? 12e6 : 4e6));
const known = { ...createPassLookup({ ...testPass(), bitsBySecond: uneven }), sheets };
const job = testJob({ frames: 1000 });

const withRate = (work: Job, rate: Rate): Job => ({
  ...work,
  edit: applyCommand(work.edit, {
    type: 'set-encoding',
    canvases: [activeClip(work.edit).canvas],
    encoding: { ...PLAIN_ENCODING, rate },
  }),
});

describe('a trial of bit rates', () => {
  const order = trialOrder(job, known)!;

  it('takes the hardest two seconds, a typical and the easiest, each for what is like it', () => {
    expect(order.pieces.map(({ role }) => role)).toEqual(['hardest', 'typical', 'easiest']);
    const [hard, typical, easy] = order.pieces;
    expect(hard!.range.in).toBe(0);
    expect(easy!.range.in).toBeGreaterThanOrEqual(30 * 24 - 24);
    // Two seconds of 42 are hard, 28 typical, twelve easy.
    expect(hard!.weight).toBeCloseTo(2 / 42, 1);
    expect(typical!.weight).toBeCloseTo(28 / 42, 1);
    expect(easy!.weight).toBeCloseTo(12 / 42, 1);
    expect(order.pieces.reduce((sum, { weight }) => sum + weight, 0)).toBeCloseTo(1, 9);
    for (const plan of trialPlans(job, sheets, order)) {
      expect(plan.frames).toBeGreaterThanOrEqual(44);
      expect(plan.frames).toBeLessThanOrEqual(52);
      expect(plan.sources.every(({ audio }) => audio === null)).toBe(true);
    }
  });

  it('tries six rates from below what the outlet keeps, that itself among them, and none above the master', () => {
    const { rates, rung } = order;
    expect(rates).toHaveLength(6);
    expect(rates).toEqual([...rates].sort((a, b) => a - b));
    expect(rates[0]).toBeLessThan(rung.bits);
    expect(rates).toContain(rung.bits);
    const best = Math.max(...job.masters.map(({ video }) => video.bits));
    expect(rates[5]).toBeLessThanOrEqual(Math.max(best, 3e6));
  });

  it('waits for the look at the masters, and has nothing to try at a constant quality', () => {
    expect(trialOrder(job, { ...createPassLookup(null), sheets })).toBeNull();
    expect(trialOrder(withRate(job, { kind: 'quality', quantiser: 22 }), known)).toBeNull();
  });

  it('has no piece twice of a clip that is too short for three', () => {
    const short = testJob({ frames: 40 });
    const pieces = trialOrder(short, known)?.pieces ?? [];
    expect(pieces.map(({ role, weight }) => [role, weight])).toEqual([['hardest', 1]]);
  });

  it('makes each piece as the clip is made, and again as the outlet does', () => {
    const { picture } = toJobEncodeSettings(job, { sheets });
    const [plan] = trialPlans(job, sheets, order);
    expect(toPieceSettings(picture!, plan!, 8e6)).toMatchObject({ kind: 'variable', bits: 8e6 });
    const constant = toJobEncodeSettings(withRate(job, { kind: 'constant', bits: 6e6 }), { sheets }).picture!;
    expect(toPieceSettings(constant, plan!, 8e6)).toMatchObject({
      kind: 'constant',
      mostBits: 8e6,
    });
    const again = toRenditionSettings({ width: 720, height: 1280, bits: 2e6 }, plan!, picture!);
    expect(again.plan).toMatchObject({ width: 720, height: 1280, frames: plan!.frames });
    expect(again.picture).toMatchObject({ codec: 'avc', bits: 2e6, level: 31 });
  });
});

describe('what a trial found', () => {
  const clip = activeClip(job.edit);
  const point = (bits: number, ssim: number) => ({
    ...{ bits, came: bits, ssim, psnr: 38, moving: null, banding: 0 },
    worst: { role: 'hardest' as const, frame: 1, ssim },
  });
  const found: RateTrial = {
    ...{
      schemaVersion: 1,
      clip: clip.id,
      canvas: clip.canvas,
      maker: 'browser',
      compressor: 'browser',
      took: 9,
    },
    key: trialKey(job, sheets),
    rung: { width: 1080, height: 1920, bits: 6e6 },
    points: [point(3e6, 0.9), point(4e6, 0.95), point(5e6, 0.951)],
  };
  const advisedOf = createBitrateAdvisor([found], sheets);

  it('is the default rate until the clip, its sharpening or the sheet changes, whatever rate is set meanwhile', () => {
    const { bits, reason } = computeBitrate(job, { sheets, advisedOf });
    expect(reason).toBe('trial');
    expect(bits).toBeLessThan(5e6);
    const set = withRate(job, { kind: 'variable', bits: 9e6, most: null });
    expect(trialKey(set, sheets)).toBe(found.key);
    const shorter = testJob({ frames: 900 });
    expect(computeBitrate(shorter, { sheets, advisedOf }).reason).not.toBe('trial');
    const sharpened = {
      ...job,
      edit: applyCommand(job.edit, {
        type: 'set-encoding',
        canvases: [clip.canvas],
        encoding: { ...PLAIN_ENCODING, sharpening: { radius: 1, amount: 1, threshold: 0 } },
      }),
    };
    expect(trialKey(sharpened, sheets)).not.toBe(found.key);
    const others = sheets.map((sheet) => ({
      ...sheet,
      placements: sheet.placements.map((placement) => ({
        ...placement,
        ladder: placement.ladder.map((rung) => ({ ...rung, bits: rung.bits + 1 })),
      })),
    }));
    expect(
      computeBitrate(job, { sheets: others, advisedOf: createBitrateAdvisor([found], others) }).reason,
    ).not.toBe('trial');
  });
});
