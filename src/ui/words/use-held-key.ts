import { type RefObject, useEffect, useRef } from 'react';

/** Tells whether a key is held down right now, by its name in the UI Events specification. */
export function useHeldKey(key: string): RefObject<boolean> {
  const held = useRef(false);
  useEffect(() => {
    const setHeld = (down: boolean) => (event: KeyboardEvent) => {
      if (event.key === key) held.current = down;
    };
    const [press, release] = [setHeld(true), setHeld(false)];
    const leave = () => (held.current = false);
    window.addEventListener('keydown', press);
    window.addEventListener('keyup', release);
    window.addEventListener('blur', leave);
    return () => {
      window.removeEventListener('keydown', press);
      window.removeEventListener('keyup', release);
      window.removeEventListener('blur', leave);
    };
  }, [key]);
  return held;
}
