import { mkdtempSync, readFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import fc from 'fast-check';
import { FrameFile } from './frame-file';

const folder = mkdtempSync(path.join(tmpdir(), 'frames-'));

describe('a file of raw frames', () => {
  it('has every frame in its place, whatever is written at once and in which order', async () => {
    const orders = fc.shuffledSubarray([...Array(64).keys()], { minLength: 64 });
    await fc.assert(
      fc.asyncProperty(orders, fc.integer({ min: 1, max: 40_000 }), async (order, bytes) => {
        const name = path.join(folder, 'raw');
        const file = await FrameFile.create(name);
        await Promise.all(order.map((n) => file.write(new Uint8Array(bytes).fill(n), n)));
        await file.close();
        const written = readFileSync(name);
        expect(written).toHaveLength(64 * bytes);
        expect(written.every((value, at) => value === Math.floor(at / bytes))).toBe(true);
      }),
      { numRuns: 10 },
    );
  });

  it('says where the disk is full', async () => {
    const file = await FrameFile.create('/dev/full');
    await expect(file.write(new Uint8Array(4096), 0)).rejects.toThrow('ENOSPC');
    await file.close();
  });
});
