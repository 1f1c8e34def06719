import { useEffect } from 'react';

/**
 * Action of each key. A key is its name in the UI Events specification, with `Ctrl+` and `Shift+` before it.
 */
export type KeyMap = Record<string, () => void>;

const typing = (target: EventTarget | null): boolean =>
  target instanceof HTMLElement &&
  (target.isContentEditable || /^(INPUT|TEXTAREA|SELECT)$/.test(target.tagName));

/** Roles whose control takes Space and Enter, and those that take arrows too (WAI-ARIA Authoring Practices). */
const PRESSED = ['button', 'checkbox', 'radio', 'switch', 'tab', 'menuitem', 'option', 'link'];
const STEPPED = ['radio', 'slider', 'spinbutton', 'tab', 'menuitem', 'option'];
const withRole = (roles: readonly string[]): string => roles.map((role) => `[role="${role}"]`).join();
const PRESSES = `${withRole(PRESSED)},button,summary,a`;
const STEPS = withRole(STEPPED);
const STEP_KEYS = /^(Arrow|Home|End|Page)/;

/** Tells whether a key is for the control that has the focus: the page must not take it from there. */
function isForControl(target: EventTarget | null, key: string): boolean {
  if (!(target instanceof HTMLElement)) return false;
  if (key === ' ' || key === 'Enter') return target.closest(PRESSES) !== null;
  return STEP_KEYS.test(key) && target.closest(STEPS) !== null;
}

/** Name of a key press as a {@link KeyMap} writes it. */
function toName(event: KeyboardEvent): string {
  const key = event.key.length === 1 ? event.key.toLowerCase() : event.key;
  const shift = event.shiftKey && key !== '?' ? 'Shift+' : '';
  return `${event.ctrlKey || event.metaKey ? 'Ctrl+' : ''}${shift}${key}`;
}

/** Listens for keys while the calling component is on screen; never while a person types in a field. */
export function useKeys(keys: KeyMap): void {
  useEffect(() => {
    const press = (event: KeyboardEvent) => {
      const action = keys[toName(event)];
      if (!action || event.altKey || typing(event.target) || isForControl(event.target, event.key)) return;
      // What lies under a dialog is out of reach.
      if (document.querySelector('[aria-modal="true"]')) return;
      event.preventDefault();
      action();
    };
    window.addEventListener('keydown', press);
    return () => window.removeEventListener('keydown', press);
  }, [keys]);
}
