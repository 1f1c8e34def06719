/**
 * State of one coordinate that moves at about constant speed and is measured now and then: a Kalman filter of
 * place and speed, smoothed backward afterwards.
 *
 * Sources: R. E. Kalman, "A new approach to linear filtering and prediction problems", 1960; for the way back
 * H. E. Rauch, F. Tung, C. T. Striebel, "Maximum likelihood estimates of linear dynamic systems", AIAA Journal 3, 1965.
 */
export interface State {
  place: number;
  /** Per frame. */
  speed: number;
  /** Variances of place and speed, and their covariance. */
  pp: number;
  ps: number;
  ss: number;
}

/** A state where something is first measured. @param noise standard deviation of a measurement. */
export function createState(place: number, noise: number, topSpeed: number): State {
  return { place, speed: 0, pp: noise * noise, ps: 0, ss: topSpeed * topSpeed };
}

/** The state some frames later. @param shake variance of the acceleration, per frame. */
export function predictState({ place, speed, pp, ps, ss }: State, frames: number, shake: number): State {
  const [two, three] = [frames * frames, frames * frames * frames];
  return {
    place: place + speed * frames,
    speed,
    pp: pp + 2 * frames * ps + two * ss + (shake * three) / 3,
    ps: ps + frames * ss + (shake * two) / 2,
    ss: ss + shake * frames,
  };
}

/** The state with a measurement taken in. */
export function correctState(state: State, measured: number, noise: number): State {
  const { place, speed, pp, ps, ss } = state;
  const sum = pp + noise * noise;
  const [gain, speedGain] = [pp / sum, ps / sum];
  const miss = measured - place;
  return {
    place: place + gain * miss,
    speed: speed + speedGain * miss,
    pp: (1 - gain) * pp,
    ps: (1 - gain) * ps,
    ss: ss - speedGain * ps,
  };
}

/** Step of the filter: the state before and after its measurement. */
export interface FilterStep {
  frame: number;
  before: State;
  after: State;
}

/** The places of all steps, each with what came later taken in. */
export function smoothSteps(steps: readonly FilterStep[]): number[] {
  const places = steps.map(({ after }) => after.place);
  let later = steps[steps.length - 1]?.after;
  if (!later) return [];
  for (let i = steps.length - 2; i >= 0; i--) {
    const { after, frame } = steps[i] as FilterStep;
    const { before, frame: next } = steps[i + 1] as FilterStep;
    const frames = next - frame;
    // The smoother's gain: covariance of now and later, times the inverse of later's.
    const [a, b] = [after.pp + frames * after.ps, after.ps];
    const [c, d] = [after.ps + frames * after.ss, after.ss];
    const det = before.pp * before.ss - before.ps * before.ps;
    const [g11, g12] = [(a * before.ss - b * before.ps) / det, (b * before.pp - a * before.ps) / det];
    const [g21, g22] = [(c * before.ss - d * before.ps) / det, (d * before.pp - c * before.ps) / det];
    const miss: [number, number] = [later.place - before.place, later.speed - before.speed];
    later = {
      ...after,
      place: after.place + g11 * miss[0] + g12 * miss[1],
      speed: after.speed + g21 * miss[0] + g22 * miss[1],
    };
    places[i] = later.place;
  }
  return places;
}
