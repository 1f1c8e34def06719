import { toSeconds } from '../../src/core/time/frame-rate';
import type { EncodeSettings } from '../../src/core/render/encode-settings';
import type { RenderPlan } from '../../src/core/render/plan';

/** A file to make: its plan, what it is asked to be, and where the bytes of its masters lie, by fingerprint. */
export interface RenderOrder {
  plan: RenderPlan;
  making: EncodeSettings;
  masters: Readonly<Record<string, string>>;
}

/** Output frames that are encoded by themselves: they begin with a key frame, and nothing outside refers to them. */
export interface Segment {
  start: number;
  frames: number;
}

/** A segment lasts about so long, in seconds: long enough that its rate settles, short enough to be shared out. */
const SECONDS = 5;
/** Machines have two cores, or four, or more: segments in this number leave none idle at the end. */
const AT_ONCE = 4;
/** Of a short clip, where there are groups enough. */
const MIN_GROUPS = 2;

/** A clip in segments, each of whole groups of pictures. */
export function listSegments({ plan, making: { picture } }: Pick<RenderOrder, 'plan' | 'making'>): Segment[] {
  const { frames, rate } = plan;
  const group = picture?.keyFrames ?? 1;
  const wanted = Math.round(toSeconds(frames, rate) / SECONDS / AT_ONCE) * AT_ONCE;
  const count = Math.min(Math.max(MIN_GROUPS, wanted), Math.ceil(frames / group));
  const edge = (n: number): number =>
    n === count ? frames : Math.min(frames, Math.round((frames * n) / count / group) * group);
  return Array.from({ length: count }, (_, n) => ({ start: edge(n), frames: edge(n + 1) - edge(n) })).filter(
    (segment) => segment.frames > 0,
  );
}
