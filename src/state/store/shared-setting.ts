import { create } from 'zustand';
import { type Trouble, troubleOf } from '@core/trouble/trouble';
import { alone } from './locks';
import { loadSetting, saveSetting } from './storage';

/** A value that all tabs share under one setting: a list of presets, say. */
export interface SharedSetting<T> {
  load(): Promise<T>;
  /**
   * Changes what is stored, whichever tab stored it, and tells the other tabs. What could not be stored is told by
   * `useUnstored`, and goes with the next change. @returns the value with the change.
   */
  change(make: (stored: T) => T): Promise<T>;
  /** Hears from now on what other tabs make of it. */
  listen(listener: (value: T) => void): void;
}

/** How a setting is read and written. */
interface Form<T> {
  /** What words call it: "presets". */
  called: string;
  /**
   * Reads what is stored, also where nothing is; what it throws at is read as nothing.
   * @param onLoss is told where some of it cannot be read: then the text is kept aside before it is written over.
   */
  read: (text: string | null, onLoss: () => void) => T;
  write: (value: T) => string;
}

/** A change that this tab has and the browser has not. */
export interface Unstored {
  trouble: Trouble;
  tryAgain: () => Promise<unknown>;
}

/** Settings whose last change could not be stored, by name. */
export const useUnstored = create<Record<string, Unstored>>(() => ({}));

/** Where a text lies that could not be read, as it was before something was written over it. */
const UNREAD = '/unread';

export function sharedSetting<T>(name: string, form: Form<T>): SharedSetting<T> {
  let channel: BroadcastChannel | null = null;
  /** Changes that could not be stored yet, in order. */
  let unstored: ((stored: T) => T)[] = [];
  const open = (): BroadcastChannel | null =>
    typeof BroadcastChannel === 'undefined'
      ? null
      : (channel ??= new BroadcastChannel(`gusset/setting/${name}`));
  /** What is stored, and the text of it where that could not be read whole. */
  const read = async (): Promise<{ value: T; unread: string | null }> => {
    const text = await loadSetting(name);
    let unread: string | null = null;
    const onLoss = () => void (unread = text);
    try {
      return { value: form.read(text, onLoss), unread };
    } catch (error) {
      console.error(`${name} is damaged`, error);
      return { value: form.read(null, onLoss), unread: text };
    }
  };
  const load = async () => (await read()).value;
  const changed = (value: T): T => unstored.reduce<T>((made, make) => make(made), value);
  const store = () =>
    alone(`gusset/write/${name}`, async () => {
      const stored = await read();
      const value = changed(stored.value);
      const taken = unstored.length;
      try {
        if (stored.unread !== null) await saveSetting(`${name}${UNREAD}`, stored.unread);
        await saveSetting(name, form.write(value));
        unstored = unstored.slice(taken);
        useUnstored.setState(({ [name]: _stored, ...others }) => others, true);
        open()?.postMessage(null);
      } catch (error) {
        const trouble = troubleOf(error, 'setting-unsaved', { what: form.called });
        useUnstored.setState({ [name]: { trouble, tryAgain: store } });
      }
      return value;
    });
  return {
    load,
    change(make) {
      unstored.push(make);
      return store();
    },
    listen(listener) {
      const hearing = open();
      if (hearing) hearing.onmessage = () => void load().then((value) => listener(changed(value)));
    },
  };
}
