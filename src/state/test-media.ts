/** The media engine as tests of the queue have it: what it was asked, and what it stores. */
export const mockMedia = {
  makeExport: jest.fn(),
  proveExport: jest.fn(),
  uploadFile: jest.fn(),
  lookAtReturnedFile: jest.fn(),
  layScript: jest.fn(),
  /** Fingerprints of the masters that are stored. */
  masters: [] as string[],
  /** Stored texts, by name. */
  files: new Map<string, string>(),
  deleted: [] as string[],
  /** True when the browser refuses to delete. */
  refuses: false,
};

const drop = (name: string): Promise<void> =>
  mockMedia.refuses
    ? Promise.reject(new Error('locked'))
    : Promise.resolve(mockMedia.files.delete(name) && void mockMedia.deleted.push(name)).then(
        () => undefined,
      );

/** In the place of `@media/worker/tasks`. */
export const mockTasks = {
  makeExport: (...args: unknown[]) => mockMedia.makeExport(...args) as unknown,
  proveExport: (...args: unknown[]) => mockMedia.proveExport(...args) as unknown,
  lookAtReturnedFile: (...args: unknown[]) => mockMedia.lookAtReturnedFile(...args) as unknown,
  layScript: (...args: unknown[]) => mockMedia.layScript(...args) as unknown,
};

/** In the place of `@media/send/upload`. */
export const mockUpload = { uploadFile: (...args: unknown[]) => mockMedia.uploadFile(...args) as unknown };

/** In the place of `@media/store/storage`. */
export const mockStorage = {
  deleteStored: (folder: string, name: string) =>
    folder === 'masters' ? Promise.resolve(void mockMedia.deleted.push(name)) : drop(name),
  deleteAllStored: (_folder: string, beginning: string) =>
    Promise.all([...mockMedia.files.keys()].filter((name) => name.startsWith(beginning)).map(drop)),
  storedFile: (_folder: string, name: string) => {
    const text = mockMedia.masters.includes(name) ? 'a film' : mockMedia.files.get(name);
    return Promise.resolve(
      text === undefined ? null : { size: text.length, lastModified: 0, text: () => Promise.resolve(text) },
    );
  },
  storedNames: (folder: string) =>
    Promise.resolve(folder === 'masters' ? mockMedia.masters : [...mockMedia.files.keys()]),
  writeSmall: (_folder: string, name: string) =>
    Promise.resolve(void mockMedia.files.set(name, '{"plan":{"frames":984}}')),
};
