/** Frames of a stretch that are looked at, and those at most. */
const MAX_FRAMES = 16;

/** Some frames of stretches, spread evenly, with the first and the last of each where there is room for them. */
export function sampleContrastFrames(
  stretches: readonly { from: number; to: number }[],
  most = MAX_FRAMES,
): number[] {
  const each = Math.max(1, Math.floor(most / Math.max(1, stretches.length)));
  const step = Math.max(1, Math.ceil(stretches.length / most));
  return stretches
    .filter((_, i) => i % step === 0)
    .flatMap(({ from, to }) => {
      const count = Math.min(each, to - from);
      if (count === 1) return [from + ((to - from) >> 1)];
      return Array.from({ length: count }, (_, i) => from + Math.round((i * (to - from - 1)) / (count - 1)));
    });
}
