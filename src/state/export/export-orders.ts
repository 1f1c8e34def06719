import { deleteStored, deleteAllStored, storedFile, writeSmall } from '@media/store/storage';
import type { OutputRequest } from '@media/export/export-output';
import { dropRemote, type RemoteOrder } from './render-server';

/** Order of an export: kept until it is made, so that a page that opens later makes it all the same. */
export interface ExportOrder extends Omit<OutputRequest, 'name'> {
  /** Request to the server, where it makes the file. */
  remote?: RemoteOrder;
}

/** Name of an export's bytes in the private file system. */
export const storedName = (exportId: string): string => `${exportId}.mp4`;
const orderName = (exportId: string): string => `${exportId}.order`;

export const keepOrder = (exportId: string, order: ExportOrder): Promise<void> =>
  writeSmall('exports', orderName(exportId), new Blob([JSON.stringify(order)]));

/** Null where there is none, or it went bad. */
export async function loadOrder(exportId: string): Promise<ExportOrder | null> {
  const file = await storedFile('exports', orderName(exportId));
  try {
    return file && (JSON.parse(await file.text()) as ExportOrder);
  } catch {
    return null;
  }
}

/** Tells whether an export can be taken up. */
export const hasOrder = async (exportId: string): Promise<boolean> => (await loadOrder(exportId)) !== null;

export const dropOrder = (exportId: string): Promise<void> => deleteStored('exports', orderName(exportId));

/** Deletes all that there is of an export: its file, its order, what was made of it so far, and what the server has. */
export async function forgetExport(exportId: string): Promise<void> {
  const remote = (await loadOrder(exportId))?.remote?.id;
  if (remote) dropRemote(remote);
  await deleteAllStored('exports', exportId);
}
