import { useCallback, useEffect, useRef, useState } from 'react';

/** Rest of the hand after which typed text is kept, in milliseconds. */
const CALM = 400;

interface TypedText {
  text: string;
  keep: (text: string) => void;
  timer: ReturnType<typeof setTimeout>;
}

/** A text as it is being typed. */
export interface Typing {
  text: string;
  type(text: string): void;
  /** The field is left: what was typed is kept at once. */
  leave(): void;
}

/**
 * Shows a text at every key, and keeps it once the hand rests, the field is left, or the page is: so a key costs no more
 * than what it shows.
 * @param of what the text belongs to. @param kept the text as it is kept.
 */
export function useTyping(
  of: string,
  kept: string,
  { show, keep }: { show: (text: string) => void; keep: (text: string) => void },
): Typing {
  const [text, setText] = useState<string | null>(null);
  const waits = useRef<TypedText | null>(null);
  const leave = useCallback(() => {
    const typed = waits.current;
    if (!typed) return;
    clearTimeout(typed.timer);
    waits.current = null;
    setText(null);
    typed.keep(typed.text);
  }, []);
  useEffect(() => {
    // A phone may end a page that is out of sight without a word.
    document.addEventListener('visibilitychange', leave);
    window.addEventListener('pagehide', leave);
    return () => {
      document.removeEventListener('visibilitychange', leave);
      window.removeEventListener('pagehide', leave);
      leave();
    };
  }, [of, leave]);
  return {
    text: text ?? kept,
    type(next) {
      if (waits.current) clearTimeout(waits.current.timer);
      waits.current = { text: next, keep, timer: setTimeout(leave, CALM) };
      setText(next);
      show(next);
    },
    leave,
  };
}
