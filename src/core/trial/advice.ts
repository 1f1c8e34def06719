import type { RateTrial, TrialPoint } from './rate-trial';

/**
 * Gain beyond a rate that cannot be seen: this much of SSIM, this share of all that can be gained, and this
 * share of what a viewer lacks even at the best (common practice, no source).
 */
const UNSEEN = 0.002;
const UNSEEN_OF_GAIN = 0.1;
const UNSEEN_OF_LOSS = 0.05;
/** A banding from which it is seen. */
const BANDS = 5;

/** Advice of a trial. */
export interface Advice {
  /** Video bits a second from which more gains a viewer next to nothing. */
  knee: number;
  /** True when more would still gain something at the highest rate that was tried. */
  open: boolean;
  /** Similarity that a viewer would get there, in SSIM. */
  ssim: number;
  /** The two schools: what is nearest to what the outlet keeps, and as much as it takes. */
  kept: TrialPoint;
  most: TrialPoint;
}

/**
 * The least rate from which more gains a viewer next to nothing: on a curve that never falls, in straight lines over
 * the logarithm of the rate.
 */
export function adviseBitrate({ points, rung }: Pick<RateTrial, 'points' | 'rung'>): Advice {
  const curve = rising(points);
  const [low, high] = [curve[0] as Place, curve[curve.length - 1] as Place];
  const unseen = Math.max(UNSEEN, UNSEEN_OF_GAIN * (high.ssim - low.ssim), UNSEEN_OF_LOSS * (1 - high.ssim));
  const enough = high.ssim - unseen;
  const above = curve.findIndex(({ ssim }) => ssim >= enough);
  // An encoder that spent less than it was asked for says nothing of lower rates.
  const least = { ...low, bits: Math.max(low.bits, (points[0] as TrialPoint).bits) };
  const knee = above <= 0 ? least : between(curve[above - 1] as Place, curve[above] as Place, enough);
  const off = (point: TrialPoint) => Math.abs(Math.log(point.bits / rung.bits));
  return {
    knee: Math.round(knee.bits),
    open: above === curve.length - 1,
    ssim: knee.ssim,
    kept: points.reduce((near, point) => (off(point) < off(near) ? point : near)),
    most: points[points.length - 1] as TrialPoint,
  };
}

interface Place {
  bits: number;
  ssim: number;
}

/**
 * The nearest curve that never falls (pool adjacent violators: M. Ayer, H. D. Brunk, G. M. Ewing, W. T. Reid,
 * E. Silverman, "An empirical distribution function for sampling with incomplete information", Annals of Mathematical
 * Statistics 26(4), 1955).
 */
function rising(points: readonly TrialPoint[]): Place[] {
  const pools: { ssim: number; of: TrialPoint[] }[] = [];
  for (const point of points) {
    pools.push({ ssim: point.ssim, of: [point] });
    for (;;) {
      const [before, last] = pools.slice(-2);
      if (!before || !last || before.ssim <= last.ssim) break;
      const of = [...before.of, ...last.of];
      pools.splice(-2, 2, { of, ssim: of.reduce((sum, { ssim }) => sum + ssim, 0) / of.length });
    }
  }
  // By what they came to: an encoder does not always spend what it is asked for.
  return pools.flatMap(({ ssim, of }) => of.map(({ came }) => ({ bits: came, ssim })));
}

/** Where a line between two places reaches a likeness. */
function between(a: Place, b: Place, ssim: number): Place {
  const share = (ssim - a.ssim) / (b.ssim - a.ssim);
  return { ssim, bits: a.bits * (b.bits / a.bits) ** share };
}

const megabits = (bits: number): string => `${(bits / 1e6).toFixed(1)} Mb/s`;

/** Says in one sentence what to do. */
export function adviceSentence(trial: Pick<RateTrial, 'points' | 'rung'>): string {
  const { knee, open, kept, most } = adviseBitrate(trial);
  const { bits: keeps } = trial.rung;
  const bands = kept.banding >= BANDS && most.banding < kept.banding / 2 ? ', and shows fewer bands' : '';
  if (open)
    return `Send ${megabits(knee)}: up to there, more bits still give a viewer a better picture${bands}.`;
  if (knee <= keeps)
    return `Send ${megabits(knee)}: the outlet keeps ${megabits(keeps)}, and more gains a viewer nothing.`;
  return `Send ${megabits(knee)}: that survives the outlet better than ${megabits(keeps)}${bands}, and more gains nothing.`;
}
