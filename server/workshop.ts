import { Programs } from './programs/programs';
import { findTools, type Tools } from './programs/tools';
import { type Database, openDatabase } from './store/database';

/** What every part of the server works with. */
export interface Workshop {
  /** Folder for what the server keeps. */
  data: string;
  database: Database;
  tools: Tools;
  /** Looks at files: seconds each, two at a time. */
  looks: Programs;
  /** Conversions: long, one at a time. */
  long: Programs;
}

/** @throws where the folder cannot be written. */
export async function openWorkshop(data: string): Promise<Workshop> {
  const tools = await findTools();
  const database = openDatabase(data);
  return { data, database, tools, looks: new Programs(tools, 2), long: new Programs(tools, 1) };
}

/** Ends every outside program and closes the database. */
export function closeWorkshop({ database, looks, long }: Workshop): void {
  looks.close();
  long.close();
  database.close();
}
