/** What the File System specification has and the DOM library of TypeScript lacks, or keeps for workers. */
interface FileSystemFileHandle {
  move(name: string): Promise<void>;
  createSyncAccessHandle(): Promise<FileSystemSyncAccessHandle>;
}

interface Window {
  /** Where a browser lets a person choose a folder to write into (File System Access). */
  showDirectoryPicker?(options: { mode: 'readwrite' }): Promise<FileSystemDirectoryHandle>;
}

interface FileSystemSyncAccessHandle {
  getSize(): number;
  read(data: Uint8Array<ArrayBuffer>, options: { at: number }): number;
  truncate(size: number): void;
  write(data: Uint8Array<ArrayBuffer>, options: { at: number }): number;
  flush(): void;
  close(): void;
}
