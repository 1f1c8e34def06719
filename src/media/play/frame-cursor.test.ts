import type { VideoSample } from 'mediabunny';
import type { MasterReader } from '../read/master-reader';
import { FrameCursor } from './frame-cursor';

/** A reader of a film of 240 frames that notes where it was entered, and how far it was read. */
function filmOf() {
  const entered: number[] = [];
  let read = 0;
  const sampleOf = (frame: number) => ({ timestamp: frame, clone: () => sampleOf(frame) });
  const reader = {
    source: { frames: 240 },
    async *frames(from: number, to: number) {
      entered.push(from);
      for (let frame = from; frame < to; frame++) {
        read += 1;
        await Promise.resolve();
        yield { frame, sample: sampleOf(frame) as unknown as VideoSample };
      }
    },
  } as unknown as MasterReader;
  return { reader, entered, read: () => read };
}

const stampOf = async (reading: Promise<VideoSample | null>) => (await reading)?.timestamp ?? null;

describe('a place in a film', () => {
  it('is read on from, a little further; everything else is sought', async () => {
    const { reader, entered } = filmOf();
    const cursor = new FrameCursor();
    const wanted = [10, 11, 12, 36, 12, 100, 101];
    for (const frame of wanted) expect(await stampOf(cursor.read(reader, frame))).toBe(frame);
    expect(entered).toEqual([10, 12, 100]);
  });

  it('gives frames that are asked for at once in their turn', async () => {
    const { reader, entered } = filmOf();
    const cursor = new FrameCursor();
    const readings = [5, 6, 9].map((frame) => stampOf(cursor.read(reader, frame)));
    expect(await Promise.all(readings)).toEqual([5, 6, 9]);
    expect(entered).toEqual([5]);
  });

  it('stops where a frame is not wanted any more, and goes on from there', async () => {
    const { reader, entered, read } = filmOf();
    const cursor = new FrameCursor();
    await cursor.read(reader, 0);
    let left = 4;
    expect(await cursor.read(reader, 20, () => left-- > 0)).toBeNull();
    expect(read()).toBe(5);
    expect(await stampOf(cursor.read(reader, 20))).toBe(20);
    expect(entered).toEqual([0]);
  });

  it('gives none past the last frame, and another film from its own beginning', async () => {
    const [one, other] = [filmOf(), filmOf()];
    const cursor = new FrameCursor();
    expect(await stampOf(cursor.read(one.reader, 239))).toBe(239);
    expect(await cursor.read(one.reader, 240)).toBeNull();
    expect(await stampOf(cursor.read(other.reader, 3))).toBe(3);
    await cursor.drop();
    expect(await stampOf(cursor.read(other.reader, 4))).toBe(4);
    expect(other.entered).toEqual([3, 4]);
  });

  it('is let go once nobody asks for a while', async () => {
    jest.useFakeTimers();
    const { reader, entered } = filmOf();
    const cursor = new FrameCursor();
    await cursor.read(reader, 7);
    await jest.advanceTimersByTimeAsync(4000);
    await cursor.read(reader, 8);
    await jest.advanceTimersByTimeAsync(4000);
    expect(entered).toEqual([7]);
    await jest.advanceTimersByTimeAsync(2000);
    expect(await stampOf(cursor.read(reader, 9))).toBe(9);
    expect(entered).toEqual([7, 9]);
    jest.useRealTimers();
  });

  it('does not read on from where reading failed', async () => {
    const { reader, entered } = filmOf();
    const cursor = new FrameCursor();
    const broken = { ...reader, frames: () => ({ next: () => Promise.reject(new Error('damaged')) }) };
    await expect(cursor.read(broken as unknown as MasterReader, 1)).rejects.toThrow('damaged');
    expect(await stampOf(cursor.read(reader, 1))).toBe(1);
    expect(entered).toEqual([1]);
  });
});
