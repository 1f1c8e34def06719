import { useEffect, useState } from 'react';

/** The time in milliseconds, anew every second while somebody waits for it. */
export function useTicking(on: boolean): number {
  const [now, setNow] = useState(() => Date.now());
  useEffect(() => {
    if (!on) return undefined;
    const clock = setInterval(() => setNow(Date.now()), 1000);
    return () => clearInterval(clock);
  }, [on]);
  return now;
}
