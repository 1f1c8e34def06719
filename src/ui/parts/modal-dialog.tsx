import { type ReactNode, useEffect, useRef } from 'react';
import { StyleSheet, useWindowDimensions, View } from 'react-native';
import { Dialog, Portal } from 'react-native-paper';

/** The part of the window's height that a dialog takes at most; past that its scroll area scrolls. */
const MAX_HEIGHT_SHARE = 0.9;

interface Props {
  title: string;
  onClose: () => void;
  /** Parts of the library's dialog: its content and its actions. */
  children: ReactNode;
}

/** A dialog over the page: it takes the focus and keeps it, Escape closes it, and the focus goes back to where it was. */
export function ModalDialog({ title, onClose, children }: Props) {
  const { height } = useWindowDimensions();
  return (
    <Portal>
      <Dialog visible onDismiss={onClose} style={{ maxHeight: MAX_HEIGHT_SHARE * height }}>
        <Dialog.Title numberOfLines={2}>{title}</Dialog.Title>
        {children}
        <ModalMark title={title} onClose={onClose} />
      </Dialog>
    </Portal>
  );
}

/** The page under a dialog stays where it is. */
const STILL = { preventScroll: true };
const FOCUSABLE = 'button, a[href], input, textarea, select, [tabindex]:not([tabindex="-1"])';

/** Finds what can have the focus in a dialog, in order. */
const findFocusable = (surface: HTMLElement): HTMLElement[] =>
  [...surface.querySelectorAll<HTMLElement>(FOCUSABLE)].filter(
    (stop) => !stop.matches(':disabled, [aria-disabled="true"]'),
  );

/**
 * Makes the element around it a modal dialog (WAI-ARIA Authoring Practices, "Dialog (Modal)"): the library draws one, and
 * no more. It is mounted with what the portal brings, later than what asks for it.
 */
function ModalMark({ title, onClose }: Omit<Props, 'children'>) {
  const mark = useRef<View>(null);
  const close = useRef(onClose);
  useEffect(() => void (close.current = onClose));
  useEffect(() => {
    const surface = (mark.current as unknown as HTMLElement | null)?.parentElement;
    if (!surface) return;
    const before = document.activeElement;
    surface.setAttribute('role', 'dialog');
    surface.setAttribute('aria-modal', 'true');
    surface.setAttribute('aria-label', title);
    // A field that asks for the focus has it already.
    if (!surface.contains(before)) findFocusable(surface)[0]?.focus(STILL);
    const press = (event: KeyboardEvent) => {
      if (event.key === 'Escape') {
        event.preventDefault();
        return close.current();
      }
      if (event.key !== 'Tab') return;
      const stops = findFocusable(surface);
      const [first, last] = [stops[0], stops.at(-1)];
      const isInside = surface.contains(document.activeElement);
      const end = event.shiftKey ? first : last;
      if (isInside && document.activeElement !== end) return;
      event.preventDefault();
      (event.shiftKey ? last : first)?.focus();
    };
    window.addEventListener('keydown', press);
    return () => {
      window.removeEventListener('keydown', press);
      if (before instanceof HTMLElement && before.isConnected) before.focus(STILL);
    };
  }, [title]);
  return <View ref={mark} style={styles.mark} />;
}

const styles = StyleSheet.create({ mark: { display: 'none' } });
