import { useState } from 'react';

/** The moment at which a part of a page came up. */
export function useNow(): Date {
  const [now] = useState(() => new Date());
  return now;
}
