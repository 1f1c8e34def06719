/** Seconds to read a frame back for each second that it takes to make one, before any was read back. */
const UNKNOWN_PROOF = 0.25;

/**
 * How long files that are made and then read back will take, from how fast it went so far. It remembers how much
 * quicker reading back is than making.
 */
export class TimeLeft {
  private proofShare = UNKNOWN_PROOF;
  /** Seconds for a frame, lately: of the file at hand, or of the one before. */
  private perFrame: number | null = null;

  /**
   * While frames are made.
   * @param seconds since it began. @param done frames that were made in them.
   * @returns seconds left, null where there is nothing to reckon from.
   */
  making(seconds: number, done: number, total: number, left: number): number | null {
    if (done <= 0 || seconds <= 0) return this.waiting(total);
    this.perFrame = seconds / done;
    return left * this.perFrame + total * this.perFrame * this.proofShare;
  }

  /** While they are read back. @param toProve frames that are not read back yet, in whatever file. */
  proving(seconds: number, done: number, toProve: number): number | null {
    if (done <= 0 || seconds <= 0)
      return this.perFrame === null ? null : toProve * this.perFrame * this.proofShare;
    if (this.perFrame !== null) this.proofShare = seconds / done / this.perFrame;
    return (toProve * seconds) / done;
  }

  /** Of frames that wait for their turn. */
  waiting(frames: number): number | null {
    return this.perFrame === null ? null : frames * this.perFrame * (1 + this.proofShare);
  }
}
