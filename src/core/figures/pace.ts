interface Point {
  seconds: number;
  done: number;
}

/** How fast something goes by now: over the newer half of what was done, so that a slow beginning is forgotten. */
export class Pace {
  /** How much was done at the first look. */
  private begun: number | null = null;
  private readonly points: Point[] = [];

  /**
   * Takes how far it is.
   * @param seconds of any clock. @param done so far, which only grows.
   * @returns seconds for one of what is done, null where there is nothing to reckon from.
   */
  at(seconds: number, done: number): number | null {
    const { points } = this;
    points.push({ seconds, done });
    this.begun ??= done;
    const half = (this.begun + done) / 2;
    while (points.length > 2 && (points[1]?.done ?? Infinity) <= half) points.shift();
    const [from] = points;
    if (!from || done <= from.done || seconds <= from.seconds) return null;
    return (seconds - from.seconds) / (done - from.done);
  }
}
