/** What the File System specification has and the DOM library of TypeScript lacks, or keeps for workers. */
interface FileSystemFileHandle {
  move(name: string): Promise<void>;
  createSyncAccessHandle(): Promise<FileSystemSyncAccessHandle>;
}

interface FileSystemSyncAccessHandle {
  getSize(): number;
  read(data: Uint8Array<ArrayBuffer>, options: { at: number }): number;
  truncate(size: number): void;
  write(data: Uint8Array<ArrayBuffer>, options: { at: number }): number;
  flush(): void;
  close(): void;
}
