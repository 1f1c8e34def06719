import { deleteAllStored, storedNames, sweepParts, writeSmall, writeWhole } from './storage';

/** A private file system in memory, whose disk may be full. */
class FakeDirectory {
  readonly files = new Map<string, string>();
  readonly folders = new Map<string, FakeDirectory>();
  static full = false;
  static modified = Date.now();
  /** Steps that the page still takes before it is ended: then nothing that it asked for is answered. */
  static stepsLeft = Infinity;

  private static step<T>(act: () => T): Promise<T> {
    return FakeDirectory.stepsLeft-- > 0 ? Promise.resolve(act()) : new Promise(() => undefined);
  }

  getDirectoryHandle(name: string): Promise<FakeDirectory> {
    const known = this.folders.get(name) ?? new FakeDirectory();
    this.folders.set(name, known);
    return Promise.resolve(known);
  }
  getFileHandle(name: string, { create = false } = {}): Promise<object> {
    if (!this.files.has(name) && !create) return Promise.reject(new DOMException('none', 'NotFoundError'));
    let text = '';
    const stream = new WritableStream<Uint8Array>({
      write: (piece) =>
        FakeDirectory.step(() => {
          if (FakeDirectory.full) throw new DOMException('full', 'QuotaExceededError');
          text += new TextDecoder().decode(piece);
        }),
      close: () => FakeDirectory.step(() => void this.files.set(name, text)),
    });
    const move = (to: string) =>
      FakeDirectory.step(() => {
        this.files.set(to, this.files.get(name) ?? '');
        this.files.delete(name);
      });
    const getFile = () => Promise.resolve({ lastModified: FakeDirectory.modified });
    const createWritable = () => FakeDirectory.step(() => stream);
    return FakeDirectory.step(() => {
      this.files.set(name, this.files.get(name) ?? '');
      return { createWritable, move, getFile };
    });
  }
  removeEntry(name: string): Promise<void> {
    if (!this.files.delete(name)) return Promise.reject(new DOMException('none', 'NotFoundError'));
    return Promise.resolve();
  }
  async *keys(): AsyncGenerator<string> {
    yield* [...this.files.keys()];
  }
}

let root: FakeDirectory;
beforeEach(() => {
  root = new FakeDirectory();
  FakeDirectory.full = false;
  FakeDirectory.stepsLeft = Infinity;
  Object.defineProperty(globalThis, 'navigator', {
    configurable: true,
    value: { storage: { getDirectory: () => Promise.resolve(root) } },
  });
});

describe('a small file', () => {
  it('is stored whole, or not at all: no empty one stays when there is no room', async () => {
    await writeSmall('stills', 'a.jpg', new Blob(['picture']));
    FakeDirectory.full = true;
    await expect(writeSmall('stills', 'b.jpg', new Blob(['picture']))).rejects.toMatchObject({
      trouble: { code: 'storage-full', values: { need: 7, free: null } },
    });
    expect(await storedNames('stills')).toEqual(['a.jpg']);
  });
});

describe('a stream', () => {
  it('that breaks off leaves nothing, and says why', async () => {
    const pieces = ['half', null];
    const stream = new ReadableStream<Uint8Array>({
      pull(to) {
        const piece = pieces.shift();
        if (piece) to.enqueue(new TextEncoder().encode(piece));
        else to.error(new Error('the line broke'));
      },
    });
    await expect(writeWhole('exports', 'a.mp4', stream, 8)).rejects.toThrow('the line broke');
    expect(await storedNames('exports')).toEqual([]);
  });

  it('has its name only once all of it is there', async () => {
    let push: (piece: Uint8Array | null) => void = () => undefined;
    const stream = new ReadableStream<Uint8Array>({
      start(to) {
        push = (piece) => (piece ? to.enqueue(piece) : to.close());
      },
    });
    const writing = writeWhole('exports', 'a.mp4', stream, 8);
    push(new TextEncoder().encode('half'));
    await new Promise((resolve) => setTimeout(resolve, 20));
    expect(await storedNames('exports')).toEqual([expect.stringMatching(/^a\.mp4\..*\.part$/)]);
    push(null);
    await writing;
    expect(await storedNames('exports')).toEqual(['a.mp4']);
  });

  it.each([0, 1, 2, 3, 4, 5, 6, 7])(
    'whose page is ended after %i steps is whole, or a part to sweep',
    async (steps) => {
      FakeDirectory.stepsLeft = steps;
      const pieces = new Blob(['the bytes']).stream();
      const isDone = await Promise.race([
        writeWhole('exports', 'a.mp4', pieces, 9).then(() => true),
        new Promise((resolve) => setTimeout(resolve, 50, false)),
      ]);
      FakeDirectory.stepsLeft = Infinity;
      const files = root.folders.get('exports')?.files ?? new Map<string, string>();
      expect(files.get('a.mp4') ?? 'the bytes').toBe('the bytes');
      expect(files.has('a.mp4')).toBe(isDone);
      await sweepParts();
      expect(await storedNames('exports')).toEqual(isDone ? ['a.mp4'] : []);
    },
  );
});

describe('what is deleted', () => {
  it('is all that begins with a name, and nothing else', async () => {
    for (const name of ['aa.json', 'aa-strip-0-0.jpg', 'aa.mp4', 'ab.mp4']) {
      await writeSmall('passes', name, new Blob(['x']));
    }
    await deleteAllStored('passes', 'aa');
    expect(await storedNames('passes')).toEqual(['ab.mp4']);
  });

  it('is at the start what was never finished, and archives that were saved', async () => {
    await writeSmall('masters', 'half.part', new Blob(['x']));
    await writeSmall('masters', 'whole', new Blob(['x']));
    await writeSmall('archives', 'job.zip', new Blob(['x']));
    await sweepParts();
    expect(await storedNames('masters')).toEqual(['whole']);
    // Another tab may be about to save it.
    expect(await storedNames('archives')).toEqual(['job.zip']);
    FakeDirectory.modified = Date.now() - 25 * 3600_000;
    await sweepParts();
    expect(await storedNames('archives')).toEqual([]);
  });
});
