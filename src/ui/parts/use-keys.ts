import { useEffect } from 'react';

/** What each key does. A key is its name in the UI Events specification, with `Ctrl+` and `Shift+` before it. */
export type KeyMap = Record<string, () => void>;

const typing = (target: EventTarget | null): boolean =>
  target instanceof HTMLElement &&
  (target.isContentEditable || /^(INPUT|TEXTAREA|SELECT)$/.test(target.tagName));

/** Space and Enter press the button that has the focus; the page must not take them from it. */
const pressing = (target: EventTarget | null, key: string): boolean =>
  (key === ' ' || key === 'Enter') &&
  target instanceof HTMLElement &&
  target.closest('[role="button"],[role="radio"],button,a') !== null;

/** Name of a key press as a {@link KeyMap} writes it. */
function nameOf(event: KeyboardEvent): string {
  const key = event.key.length === 1 ? event.key.toLowerCase() : event.key;
  const shift = event.shiftKey && key !== '?' ? 'Shift+' : '';
  return `${event.ctrlKey || event.metaKey ? 'Ctrl+' : ''}${shift}${key}`;
}

/** Listens for keys while the calling component is on screen; never while a person types in a field. */
export function useKeys(keys: KeyMap): void {
  useEffect(() => {
    const press = (event: KeyboardEvent) => {
      const action = keys[nameOf(event)];
      if (!action || event.altKey || typing(event.target) || pressing(event.target, event.key)) return;
      event.preventDefault();
      action();
    };
    window.addEventListener('keydown', press);
    return () => window.removeEventListener('keydown', press);
  }, [keys]);
}
