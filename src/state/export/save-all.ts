import { create } from 'zustand';
import { uniqueNames } from '@core/job/export-name';
import type { ExportRecord } from '@core/job/records';
import { type Trouble, TroubleError, toTrouble } from '@core/trouble/trouble';
import { deleteStored, storedFile } from '@media/store/storage';
import { packStored } from '@media/worker/tasks';
import { storedName } from './export-orders';
import { loadExportedFile } from './exports';
import { awaitOutcome } from '../task';

interface SaveState {
  /** Bytes that are saved of all, while that goes on. */
  progress: { done: number; total: number } | null;
  /** How the last one ended, in words; null where nothing was saved yet. */
  told: string | null;
  trouble: Trouble | null;
}

/** Saving of several exports at once. */
export const useSaveAll = create<SaveState>(() => ({ progress: null, told: null, trouble: null }));

let stop: AbortController | null = null;
export const stopSaving = (): void => stop?.abort();

/** Tells whether this browser lets a person choose a folder. */
export const canChooseFolder = (): boolean => typeof window.showDirectoryPicker === 'function';

/** Saves exports into a folder that the person chooses. @returns whether they chose one. */
export async function saveIntoFolder(records: readonly ExportRecord[]): Promise<boolean> {
  const folder = await window.showDirectoryPicker?.({ mode: 'readwrite' }).catch(() => null);
  if (!folder) return false;
  await saving(records, async (signal, onBytes) => {
    const there = new Set<string>();
    for await (const name of folder.keys()) there.add(name);
    const names = chooseNames(records, [...there]);
    for (const [i, record] of records.entries()) {
      await writeInto(folder, names[i] as string, await openExport(record), onBytes, signal);
    }
    return `Saved ${records.length} files in ${folder.name}.`;
  });
  return true;
}

/** Saves exports as one archive, which is handed to the browser's downloads. @returns null where that failed. */
export async function saveAsArchive(records: readonly ExportRecord[], title: string): Promise<File | null> {
  const name = `exports-${Date.now()}.zip`;
  const names = chooseNames(records, []);
  let file: File | null = null;
  await saving(
    records,
    async (signal, onBytes) => {
      const files = await Promise.all(
        records.map(async (record, i) => ({
          ...{ folder: 'exports' as const, name: storedName(record.id), entry: names[i] as string },
          ...{ fileName: record.fileName, bytes: (await openExport(record)).size },
        })),
      );
      await packStored({ name, texts: [], files }, { signal, onProgress: ({ done }) => onBytes(done, true) });
      const stored = await storedFile('archives', name);
      file = stored && new File([stored], `${title || 'exports'}.zip`, { type: 'application/zip' });
      return `Saved ${records.length} files as one archive.`;
    },
    () => deleteStored('archives', name),
  );
  return file;
}

/** Names that are neither there nor twice. */
const chooseNames = (records: readonly ExportRecord[], there: readonly string[]): string[] =>
  uniqueNames([...there, ...records.map(({ fileName }) => fileName)]).slice(there.length);

async function openExport(record: ExportRecord): Promise<File> {
  const file = await loadExportedFile(record);
  if (!file) throw new TroubleError('export-gone', { file: record.fileName });
  return file;
}

/** Streams a file into a folder; one that is not whole does not stay. */
async function writeInto(
  folder: FileSystemDirectoryHandle,
  name: string,
  file: File,
  onBytes: (bytes: number) => void,
  signal: AbortSignal,
): Promise<void> {
  const handle = await folder.getFileHandle(name, { create: true });
  const counted = new TransformStream<Uint8Array, Uint8Array>({
    transform(piece, to) {
      onBytes(piece.byteLength);
      to.enqueue(piece);
    },
  });
  try {
    await file
      .stream()
      .pipeThrough(counted)
      .pipeTo(await handle.createWritable(), { signal });
  } catch (error) {
    await folder.removeEntry(name).catch(() => undefined);
    throw error;
  }
}

async function saving(
  records: readonly ExportRecord[],
  run: (signal: AbortSignal, onBytes: (bytes: number, all?: boolean) => void) => Promise<string>,
  clean: () => Promise<void> = () => Promise.resolve(),
): Promise<void> {
  const mine = (stop = new AbortController());
  const total = records.reduce((sum, { bytes }) => sum + (bytes ?? 0), 0);
  let done = 0;
  const onBytes = (bytes: number, all = false): void => {
    done = all ? bytes : done + bytes;
    useSaveAll.setState({ progress: { done, total } });
  };
  useSaveAll.setState({ progress: { done, total }, told: null, trouble: null });
  const outcome = await awaitOutcome(
    {
      run: (signal) => run(signal, onBytes),
      clean,
      trouble: (error) => toTrouble(error, 'save-failed', {}),
    },
    mine.signal,
  );
  useSaveAll.setState({
    progress: null,
    told: outcome.state === 'done' ? outcome.result : null,
    trouble: outcome.state === 'failed' ? outcome.trouble : null,
  });
}
