import { useRef } from 'react';

/** Interval in which a second press counts as the same press of a hand that pressed twice, in milliseconds. */
const DOUBLE_PRESS_MS = 600;

/** Has a press that begins something do it once, also where the hand presses twice. */
export function useSinglePress(): (act: () => void) => void {
  const lastMs = useRef(-Infinity);
  return (act) => {
    const nowMs = performance.now();
    const isSame = nowMs - lastMs.current < DOUBLE_PRESS_MS;
    lastMs.current = nowMs;
    if (!isSame) act();
  };
}
