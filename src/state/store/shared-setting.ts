import { create } from 'zustand';
import { type Trouble, toTrouble } from '@core/trouble/trouble';
import { runAlone } from './locks';
import { dropSetting, loadSetting, saveSetting } from './storage';

/** A value that all tabs share under one setting: a list of presets, say. */
export interface SharedSetting<T> {
  load(): Promise<T>;
  /**
   * Changes what is stored, whichever tab stored it, and tells the other tabs. What could not be stored is told by
   * `useSettingTroubles`, and goes with the next change. @returns the value with the change.
   */
  change(make: (stored: T) => T): Promise<T>;
  /** Hears from now on what other tabs make of it. */
  listen(listener: (value: T) => void): void;
}

/** How a setting is read and written. */
interface Form<T> {
  /** As sentences name it: "presets". */
  label: string;
  /**
   * Reads what is stored, also where nothing is; what it throws at is read as nothing.
   * @param onLoss is told where some of it cannot be read: then the text is kept aside before it is written over.
   */
  read: (text: string | null, onLoss: () => void) => T;
  write: (value: T) => string;
}

/** A change that this tab has and the browser has not. */
interface UnstoredChange {
  trouble: Trouble;
  tryAgain: () => Promise<unknown>;
}

/** A text of a setting that cannot be read whole. */
interface UnreadValue {
  label: string;
  text: string;
  /** Goes on without what cannot be read in it. */
  forget: () => Promise<void>;
}

/** Settings that something is wrong with, by name. */
interface SettingTroubles {
  unstored: Record<string, UnstoredChange>;
  unread: Record<string, UnreadValue>;
}

export const useSettingTroubles = create<SettingTroubles>(() => ({ unstored: {}, unread: {} }));

function setTrouble<K extends keyof SettingTroubles>(
  kind: K,
  name: string,
  trouble: SettingTroubles[K][string] | null,
): void {
  const { [name]: _old, ...others } = useSettingTroubles.getState()[kind];
  useSettingTroubles.setState({ [kind]: trouble === null ? others : { ...others, [name]: trouble } });
}

/** Where a text lies that could not be read, as it was before something was written over it. */
const UNREAD = '/unread';

export function sharedSetting<T>(name: string, form: Form<T>): SharedSetting<T> {
  let channel: BroadcastChannel | null = null;
  /** Changes that could not be stored yet, in order. */
  let unstored: ((stored: T) => T)[] = [];
  /** Value that was stored when it was last read. */
  let known = form.read(null, () => undefined);
  const open = (): BroadcastChannel | null =>
    typeof BroadcastChannel === 'undefined'
      ? null
      : (channel ??= new BroadcastChannel(`gusset/setting/${name}`));
  /** Reads what is stored. @returns the text of it where that cannot be read whole, else null. */
  const readStored = async (): Promise<string | null> => {
    const text = await loadSetting(name);
    let unread: string | null = null;
    const onLoss = () => void (unread = text);
    try {
      known = form.read(text, onLoss);
    } catch (error) {
      console.error(`${name} is damaged`, error);
      known = form.read(null, onLoss);
      onLoss();
    }
    return unread;
  };
  const tellUnread = (text: string) =>
    setTrouble('unread', name, {
      label: form.label,
      text,
      async forget() {
        await store();
        await dropSetting(name + UNREAD);
        setTrouble('unread', name, null);
      },
    });
  /** Applies the first changes that are not stored to what is stored. */
  const withUnstored = (count = unstored.length): T =>
    unstored.slice(0, count).reduce<T>((value, make) => make(value), known);
  const store = () =>
    runAlone(`gusset/write/${name}`, async () => {
      const taken = unstored.length;
      try {
        const unread = await readStored();
        if (unread !== null) await saveSetting(name + UNREAD, unread);
        const value = withUnstored(taken);
        await saveSetting(name, form.write(value));
        known = value;
        unstored = unstored.slice(taken);
        setTrouble('unstored', name, null);
        open()?.postMessage(null);
        return value;
      } catch (error) {
        const trouble = toTrouble(error, 'setting-unsaved', { what: form.label });
        setTrouble('unstored', name, { trouble, tryAgain: store });
        return withUnstored();
      }
    });
  return {
    async load() {
      const unread = (await readStored()) ?? (await loadSetting(name + UNREAD));
      if (unread !== null) tellUnread(unread);
      return known;
    },
    change(make) {
      unstored.push(make);
      return store();
    },
    listen(listener) {
      const hearing = open();
      if (hearing) hearing.onmessage = () => void readStored().then(() => listener(withUnstored()));
    },
  };
}
