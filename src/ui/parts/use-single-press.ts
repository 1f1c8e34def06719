import { useRef } from 'react';

/** What is pressed again so soon is one press of a hand that pressed twice, in milliseconds. */
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
