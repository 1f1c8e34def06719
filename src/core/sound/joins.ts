import type { Planes } from './channels';

/** How long one sound passes into the next where they are joined, in seconds: short enough not to be heard as a fade. */
export const JOIN = 0.005;

/**
 * Joins sounds without a click: each gives a little more than its length, and what is too much passes into the
 * beginning of the next. Sound that goes on past the join as it would anyway stays as it is.
 */
export class Joiner {
  private tail: Planes = [];

  /** The beginning of a sound, with what the one before it had too much. */
  begin(planes: Planes): Planes {
    const { tail } = this;
    const length = tail[0]?.length ?? 0;
    this.tail = [];
    if (length === 0) return planes;
    return planes.map((plane, channel) => {
      const out = plane.slice();
      const before = tail[channel] ?? new Float32Array(length);
      for (let i = 0; i < Math.min(length, out.length); i++) {
        const share = 0.5 - 0.5 * Math.cos((Math.PI * (i + 0.5)) / length);
        out[i] = (before[i] as number) + share * ((out[i] as number) - (before[i] as number));
      }
      return out;
    });
  }

  /** Drops the end of a sound that is too long. */
  end(planes: Planes): void {
    this.tail = planes;
  }
}
