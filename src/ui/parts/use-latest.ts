import { useEffect, useRef } from 'react';

/**
 * Takes answers to what is asked again and again: only that to what was asked last, whichever comes first, and none
 * after the page was left. @returns what waits for an answer; it rejects where that failed and is still wanted.
 */
export function useLatest<T>(take: (answer: T) => void): (answer: Promise<T>) => Promise<void> {
  const asked = useRef(0);
  useEffect(
    () => () => {
      asked.current += 1;
    },
    [],
  );
  return async (answer) => {
    const own = (asked.current += 1);
    try {
      const value = await answer;
      if (asked.current === own) take(value);
    } catch (error) {
      if (asked.current === own) throw error;
    }
  };
}
