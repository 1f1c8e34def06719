import { useEffect } from 'react';

/** Controls that Space takes (WAI-ARIA Authoring Practices), and that are no buttons of the browser. */
const TAKEN_BY_SPACE = '[role="radio"],[role="checkbox"],[role="switch"]';
const STEPS: Partial<Record<string, number>> = { ArrowLeft: -1, ArrowUp: -1, ArrowRight: 1, ArrowDown: 1 };

/** The radio that an arrow key leads to from the one in focus: round and round in its group. */
function findRadio(radio: HTMLElement, step: number): HTMLElement | null {
  const group = radio.closest('[role="radiogroup"]');
  const radios = [
    ...(group?.querySelectorAll<HTMLElement>('[role="radio"]:not([aria-disabled="true"])') ?? []),
  ];
  return radios[(radios.indexOf(radio) + step + radios.length) % radios.length] ?? null;
}

function press(event: KeyboardEvent): void {
  const { target, key } = event;
  if (event.defaultPrevented || event.altKey || event.ctrlKey || event.metaKey) return;
  if (!(target instanceof HTMLElement) || target instanceof HTMLInputElement) return;
  const step = target.getAttribute('role') === 'radio' ? STEPS[key] : undefined;
  const taken =
    step === undefined
      ? key === ' ' && target.matches(TAKEN_BY_SPACE)
        ? target
        : null
      : findRadio(target, step);
  if (!taken) return;
  event.preventDefault();
  taken.focus();
  taken.click();
}

/** Lets Space take the radio or check box in focus, and arrows go on to the next radio: the library knows Enter alone. */
export function useControlKeys(): void {
  useEffect(() => {
    window.addEventListener('keydown', press);
    return () => window.removeEventListener('keydown', press);
  }, []);
}
