import { useEffect, useState } from 'react';
import { storageRoom } from '@media/store/storage';

/** What this browser holds, in bytes; looked up again whenever `when` changes. */
export function useStorageUse(when: unknown): number | null {
  const [used, setUsed] = useState<number | null>(null);
  useEffect(() => {
    void storageRoom().then((room) => setUsed(room.used));
  }, [when]);
  return used;
}
