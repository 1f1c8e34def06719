import { useState } from 'react';
import { Notice } from '../parts/notice';

/** Stores a change of the rule sheets; where that fails the page says so, and what the person made stays. */
export function useKeeping() {
  const [lost, setLost] = useState(false);
  return {
    /** Shown where the rules could not be stored. */
    notice: lost && (
      <Notice standing="stop" title="The rules could not be stored in this browser.">
        Nothing of your work here is lost. Free some space, then try again.
      </Notice>
    ),
    /** @param then is done once it is stored. */
    keep(change: Promise<void>, then: () => void): void {
      change
        .then(() => {
          setLost(false);
          then();
        })
        .catch((error: unknown) => {
          console.error('a rule sheet could not be stored', error);
          setLost(true);
        });
    },
  };
}
