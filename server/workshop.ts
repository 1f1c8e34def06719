import { Fleet } from './fleet/fleet';
import { Programs } from './programs/programs';
import { findTools, type Tools } from './programs/tools';
import { type Database, openDatabase } from './store/database';
import { type FolderLock, lockFolder } from './store/folder-lock';
import { ensurePrivateFolder } from './store/private-folder';
import { Secrets } from './store/secrets';

/** Tools that every part of the server works with. */
export interface Workshop {
  /** Folder for what the server keeps: nobody else enters it, and no other server works on it. */
  data: string;
  lock: FolderLock;
  database: Database;
  /** Its own keys. */
  secrets: Secrets;
  tools: Tools;
  /** Looks at files: seconds each, two at a time. */
  looks: Programs;
  /** Conversions: long, one at a time. */
  long: Programs;
  /** Workers that make files with us; null where this machine makes them alone. */
  fleet: Fleet | null;
}

/** How workers elsewhere are found, and find us. */
export interface WorkersAt {
  /** Address of Redis. */
  redis: string;
  /** Address at which they fetch and bring files: it is listened on. */
  address: string;
}

/** @throws where the folder cannot be written, and where workers are asked for and Redis cannot be reached. */
export async function openWorkshop(data: string, workers: WorkersAt | null = null): Promise<Workshop> {
  ensurePrivateFolder(data);
  const lock = lockFolder(data);
  try {
    const tools = await findTools();
    const database = openDatabase(data);
    const fleet = workers && (await Fleet.open(workers.redis, workers.address));
    const secrets = Secrets.open(data);
    const [looks, long] = [new Programs(tools, 2), new Programs(tools, 1)];
    return { data, lock, database, secrets, tools, looks, long, fleet };
  } catch (error) {
    lock.release();
    throw error;
  }
}

/** Ends every outside program, those that wait too. */
export function endPrograms({ looks, long }: Workshop): void {
  looks.close();
  long.close();
}

/** Closes the way to the workers, and the database: nothing may be at work any more. */
export async function closeWorkshop({ database, fleet, lock }: Workshop): Promise<void> {
  await fleet?.close();
  database.close();
  lock.release();
}
