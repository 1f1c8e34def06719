import { useEffect, useRef } from 'react';
import type { View } from 'react-native';

/** Words where the pointer rests on something: on the web target a view is its element; a phone has no such pointer. */
export function useTooltip(words: string | null) {
  const area = useRef<View>(null);
  useEffect(() => {
    const element = area.current as unknown as HTMLElement | null;
    if (element && words !== null) element.title = words;
  }, [words]);
  return area;
}
