import { useEffect, useState } from 'react';
import { storageRoom, storedSizes } from '@media/store/storage';
import type { JobListEntry } from '../job-list-entry';
import { useJobs } from '../job';

/** Measures the storage that this browser grants and holds, in bytes; again whenever `when` changes. */
export function useStorageRoom(when: unknown): { used: number; free: number } | null {
  const [room, setRoom] = useState<{ used: number; free: number } | null>(null);
  useEffect(() => {
    void storageRoom().then(setRoom);
  }, [when]);
  return room;
}

/** Storage that a job uses in this browser, in bytes. */
export interface JobStorage {
  masters: {
    fingerprint: string;
    fileName: string;
    /** Of the file itself; 0 where it is not here any more. */
    bytes: number;
    /** Of what was made of it to look at: proxy, filmstrip, stills. */
    made: number;
    /** Titles of other jobs that were made from it too. */
    sharedWith: string[];
  }[];
  exports: number;
  /** Of bit rates that were measured: figures and pictures. */
  trials: number;
}

/** Adds up what a job keeps, master by master. */
export async function measureStorage({ head, exports }: JobListEntry): Promise<JobStorage> {
  const [masters, passes, stills, clips, trials] = await Promise.all(
    (['masters', 'passes', 'stills', 'exports', 'trials'] as const).map(storedSizes),
  );
  const from = (sizes: Map<string, number> | undefined, begins: string) =>
    [...(sizes ?? [])].reduce((sum, [name, size]) => sum + (name.startsWith(begins) ? size : 0), 0);
  const others = Object.values(useJobs.getState().listed).filter((listed) => listed.head.id !== head.id);
  return {
    masters: head.masters.map(({ fingerprint, fileName }) => ({
      fingerprint,
      fileName,
      bytes: masters?.get(fingerprint) ?? 0,
      made: from(passes, fingerprint) + from(stills, fingerprint),
      sharedWith: others
        .filter((listed) => listed.head.masters.some((master) => master.fingerprint === fingerprint))
        .map((listed) => listed.head.title),
    })),
    exports: exports.reduce((sum, record) => sum + from(clips, record.id), 0),
    trials: from(trials, `${head.id}.`),
  };
}
