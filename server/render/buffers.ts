/** Buffers of one size that are used again: frames are large, and collecting them as garbage costs as much as drawing. */
export class Buffers {
  private readonly free: Uint8Array<ArrayBuffer>[] = [];

  /** A buffer of a size, with whatever it held before. */
  take(size: number): Uint8Array<ArrayBuffer> {
    const known = this.free.pop();
    return known?.length === size ? known : new Uint8Array(size);
  }

  /** Takes one back that nobody uses any more. */
  give(buffer: Uint8Array<ArrayBuffer>): void {
    this.free.push(buffer);
  }
}
