import { useEffect, useState } from 'react';
import { storageRoom } from '@media/storage';

/** What this browser holds and may still hold, in bytes; looked up again whenever `when` changes. */
export function useStorageUse(when: unknown): { used: number; free: number } | null {
  const [room, setRoom] = useState<{ used: number; free: number } | null>(null);
  useEffect(() => {
    void storageRoom().then(setRoom);
  }, [when]);
  return room;
}
