import { alone } from './locks';
import { loadSetting, saveSetting } from './storage';

/** A value that all tabs share under one setting: a list of presets, say. */
export interface SharedSetting<T> {
  load(): Promise<T>;
  /** Changes what is stored, whichever tab stored it, and tells the other tabs. @returns what is stored now. */
  change(make: (stored: T) => T): Promise<T>;
  /** Hears from now on what other tabs make of it. */
  listen(listener: (value: T) => void): void;
}

/** @param form reads what is stored, also where nothing is or it is damaged, and writes it. */
export function sharedSetting<T>(
  name: string,
  form: { read: (text: string | null) => T; write: (value: T) => string },
): SharedSetting<T> {
  let channel: BroadcastChannel | null = null;
  const open = (): BroadcastChannel | null =>
    typeof BroadcastChannel === 'undefined'
      ? null
      : (channel ??= new BroadcastChannel(`gusset/setting/${name}`));
  const load = async () => form.read(await loadSetting(name));
  return {
    load,
    async change(make) {
      const value = await alone(`gusset/write/${name}`, async () => {
        const next = make(await load());
        await saveSetting(name, form.write(next));
        return next;
      });
      open()?.postMessage(null);
      return value;
    },
    listen(listener) {
      const hearing = open();
      if (hearing) hearing.onmessage = () => void load().then(listener);
    },
  };
}
