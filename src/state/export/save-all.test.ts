import { ReadableStream, TransformStream, WritableStream } from 'node:stream/web';
import type { ExportRecord } from '@core/job/records';
import { saveAsArchive, saveIntoFolder, stopSaving, useSaveAll } from './save-all';

const mockStream = (bytes: Uint8Array) => ReadableStream.from([bytes]);
const mockBytes = new Map<string, Uint8Array>();
jest.mock('./exports', () => ({
  loadExportedFile: ({ id }: { id: string }) => {
    const bytes = mockBytes.get(id);
    return Promise.resolve(bytes ? { size: bytes.length, stream: () => mockStream(bytes) } : null);
  },
}));
let mockPack: () => Promise<void> = () => Promise.resolve();
const mockDeleted: string[] = [];
jest.mock('@media/store/storage', () => ({
  storedFile: (_folder: string, name: string) => Promise.resolve(new Blob([name])),
  deleteStored: (_folder: string, name: string) => Promise.resolve(void mockDeleted.push(name)),
}));
jest.mock('@media/worker/tasks', () => ({ packStored: () => mockPack() }));

/** A folder of a person's. */
class Folder {
  readonly name = 'clips';
  readonly files = new Map<string, number[]>();
  full = false;

  async *keys() {
    yield* this.files.keys();
  }

  getFileHandle(name: string) {
    const bytes: number[] = [];
    this.files.set(name, bytes);
    const write = (piece: Uint8Array) => {
      if (this.full) throw new Error('the disk is full');
      bytes.push(...piece);
    };
    return Promise.resolve({ createWritable: () => Promise.resolve(new WritableStream({ write })) });
  }

  removeEntry(name: string) {
    this.files.delete(name);
    return Promise.resolve();
  }
}

const records = ['first', 'second'].map(
  (id, n) => ({ id, fileName: 'clip.mp4', bytes: n + 2 }) as ExportRecord,
);
let folder: Folder;
beforeEach(() => {
  Object.assign(globalThis, { TransformStream });
  folder = new Folder();
  window.showDirectoryPicker = () => Promise.resolve(folder as unknown as FileSystemDirectoryHandle);
  mockBytes.clear();
  mockBytes.set('first', Uint8Array.of(1, 2));
  mockBytes.set('second', Uint8Array.of(3, 4, 5));
  mockDeleted.length = 0;
});

describe('saving all exports at once', () => {
  it('leaves what lies in the folder, and gives files of one name names of their own', async () => {
    folder.files.set('clip.mp4', [9]);
    expect(await saveIntoFolder(records)).toBe(true);
    expect([...folder.files.values()]).toEqual([[9], [1, 2], [3, 4, 5]]);
    expect(useSaveAll.getState()).toMatchObject({
      progress: null,
      told: 'Saved 2 files in clips.',
      trouble: null,
    });
  });

  it('says what went wrong, and leaves no half of a file', async () => {
    folder.full = true;
    await saveIntoFolder(records);
    expect(folder.files.size).toBe(0);
    expect(useSaveAll.getState().trouble?.code).toBe('save-failed');
    mockBytes.delete('second');
    folder.full = false;
    await saveIntoFolder(records);
    expect(useSaveAll.getState().trouble?.code).toBe('export-gone');
  });

  it('does nothing where the person chose no folder', async () => {
    window.showDirectoryPicker = () => Promise.reject(new DOMException('', 'AbortError'));
    expect(await saveIntoFolder(records)).toBe(false);
  });

  it('makes one archive, and nothing of one that was stopped', async () => {
    const file = await saveAsArchive(records, 'A day out');
    expect(file?.name).toBe('A day out.zip');
    mockPack = () => {
      stopSaving();
      return Promise.reject(new Error('stopped'));
    };
    expect(await saveAsArchive(records, '')).toBeNull();
    expect(mockDeleted).toHaveLength(1);
    expect(useSaveAll.getState()).toEqual({ progress: null, told: null, trouble: null });
  });
});
