import { type FileHandle, open } from 'node:fs/promises';

/** A file of raw frames, one behind the other. Whoever opens it closes it. */
export class FrameFile {
  private constructor(private readonly file: FileHandle) {}

  static async create(name: string): Promise<FrameFile> {
    return new FrameFile(await open(name, 'w'));
  }

  /**
   * Writes a frame in its place, whatever others are being written meanwhile: writes to a file are not kept in order.
   * @param number from 0; all frames have one size. @throws Error where the disk is full.
   */
  async write(frame: Uint8Array, number: number): Promise<void> {
    for (let at = 0; at < frame.length;) {
      const place = number * frame.length + at;
      at += (await this.file.write(frame, at, frame.length - at, place)).bytesWritten;
    }
  }

  close(): Promise<void> {
    return this.file.close();
  }
}
