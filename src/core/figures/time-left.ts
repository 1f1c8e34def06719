/** Seconds to read a frame back for each second that it takes to make one, before any was read back (measured). */
const UNKNOWN_PROOF = 0.15;

/**
 * How long files that are made and then read back will take, from how fast it goes. It remembers how much quicker
 * reading back is than making.
 */
export class TimeLeft {
  private proofShare = UNKNOWN_PROOF;
  /** Seconds for a frame, lately: of the file at hand, or of the one before. */
  private perFrame: number | null = null;

  /**
   * While frames are made.
   * @param perFrame seconds for one, null where that is not known yet. @param left frames, some of them made again.
   * @param frames that will be read back.
   * @returns seconds left, null where there is nothing to reckon from.
   */
  making(perFrame: number | null, left: number, frames: number): number | null {
    this.perFrame = perFrame ?? this.perFrame;
    return this.perFrame === null ? null : (left + frames * this.proofShare) * this.perFrame;
  }

  /**
   * While they are read back.
   * @param perFrame seconds for one, null where that is not known yet. @param left frames, in whatever file.
   */
  proving(perFrame: number | null, left: number): number | null {
    if (perFrame === null) return this.perFrame === null ? null : left * this.perFrame * this.proofShare;
    if (this.perFrame !== null) this.proofShare = perFrame / this.perFrame;
    return left * perFrame;
  }

  /** Of frames that wait for their turn. */
  waiting(frames: number): number | null {
    return this.perFrame === null ? null : frames * this.perFrame * (1 + this.proofShare);
  }
}
