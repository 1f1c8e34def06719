import { open } from 'node:fs/promises';

/** Boxes at the top of a file before it is taken for one that was made to keep a reader busy. */
const MAX_BOXES = 100_000;

/**
 * Tells whether the top-level boxes of an MP4 or MOV end where its file does (ISO/IEC 14496-12, 4.2): those
 * of a file that was cut off, or whose sizes are forged, do not.
 */
export async function hasWholeBoxes(file: string): Promise<boolean> {
  const handle = await open(file);
  try {
    const { size: end } = await handle.stat();
    const head = Buffer.alloc(16);
    let offset = 0;
    for (let n = 0; offset < end && n < MAX_BOXES; n++) {
      const { bytesRead } = await handle.read(head, 0, 16, offset);
      if (bytesRead < 8) return false;
      const small = head.readUInt32BE(0);
      // 0: to the end of the file. 1: the size follows in 64 bits.
      if (small === 0) return true;
      const size = small === 1 && bytesRead === 16 ? Number(head.readBigUInt64BE(8)) : small;
      if (size < 8) return false;
      offset += size;
    }
    return offset === end;
  } finally {
    await handle.close();
  }
}
