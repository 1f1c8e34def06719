import { useEffect, useState } from 'react';
import type { Abilities } from '@core/outlets/outlet-api';
import { outletAbilities } from '@state/posting';

/** Reads the abilities of some outlets; those that have not answered are missing. */
export function useAllAbilities(outlets: readonly string[]): ReadonlyMap<string, Abilities> {
  const [known, setKnown] = useState<ReadonlyMap<string, Abilities>>(new Map());
  const asked = outlets.join(' ');
  useEffect(() => {
    let current = true;
    for (const outlet of asked.split(' ').filter(Boolean))
      outletAbilities(outlet)
        .then((abilities) => current && setKnown((known) => new Map(known).set(outlet, abilities)))
        // Without them, what they are for is not offered.
        .catch(() => undefined);
    return () => {
      current = false;
    };
  }, [asked]);
  return known;
}

/** Reads the abilities of an outlet; null while they are not known. */
export const useOutletAbilities = (outlet: string): Abilities | null =>
  useAllAbilities([outlet]).get(outlet) ?? null;
