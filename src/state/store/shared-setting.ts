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
  /** Reads what is stored, also where nothing is; what it throws at is read as nothing. */
  read: (text: string | null) => T;
  write: (value: T) => string;
}

/** A change that this tab has and the browser has not. */
export interface Unstored {
  trouble: Trouble;
  tryAgain: () => Promise<unknown>;
}

/** Settings whose last change could not be stored, by name. */
export const useUnstored = create<Record<string, Unstored>>(() => ({}));

export function sharedSetting<T>(name: string, form: Form<T>): SharedSetting<T> {
  let channel: BroadcastChannel | null = null;
  /** Changes that could not be stored yet, in order. */
  let unstored: ((stored: T) => T)[] = [];
  const open = (): BroadcastChannel | null =>
    typeof BroadcastChannel === 'undefined'
      ? null
      : (channel ??= new BroadcastChannel(`gusset/setting/${name}`));
  const load = async () => {
    const text = await loadSetting(name);
    try {
      return form.read(text);
    } catch (error) {
      console.error(`${name} is damaged`, error);
      return form.read(null);
    }
  };
  const changed = async () => unstored.reduce<T>((value, make) => make(value), await load());
  const store = () =>
    alone(`gusset/write/${name}`, async () => {
      const value = await changed();
      const taken = unstored.length;
      try {
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
      if (hearing) hearing.onmessage = () => void changed().then(listener);
    },
  };
}
