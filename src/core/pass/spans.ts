/** A coded picture of a file, as decoding meets it. */
export interface CodedPicture {
  /** When it shows, in seconds. */
  timestamp: number;
  key: boolean;
}

/** A stretch of a file that decodes by itself: from a key frame to before another. */
export interface Span {
  /** Stamp of its key frame, in seconds. */
  start: number;
  /** How many coded pictures it has. */
  pictures: number;
}

/**
 * Divides a file into spans. A key frame that pictures after it show before it (an open group: ITU-T H.264, 3.1,
 * "recovery point"; ITU-T H.265, 3.1, "leading picture") begins none, since those pictures need what came earlier.
 */
export class SpanFinder {
  private readonly spans: Span[] = [];
  private group: (Span & { closed: boolean }) | null = null;

  /** @param least pictures of a span at least; only the last may have fewer. */
  constructor(private readonly least: number) {}

  /** Takes the pictures in decoding order; those before the first key frame cannot be decoded, and count for none. */
  push({ timestamp, key }: CodedPicture): void {
    if (key) {
      this.endGroup();
      this.group = { start: timestamp, pictures: 1, closed: true };
    } else if (this.group) {
      this.group.pictures += 1;
      if (timestamp < this.group.start) this.group.closed = false;
    }
  }

  /** All spans, in order. */
  finish(): Span[] {
    this.endGroup();
    return this.spans;
  }

  private endGroup(): void {
    const { group } = this;
    this.group = null;
    if (!group) return;
    const last = this.spans[this.spans.length - 1];
    if (last && (!group.closed || last.pictures < this.least)) last.pictures += group.pictures;
    else this.spans.push({ start: group.start, pictures: group.pictures });
  }
}
