import { create, type StoreApi, type UseBoundStore } from 'zustand';
import { loadSetting, saveSetting } from './store';

/** Setting that a person chose for this browser. */
export interface Setting<T extends string> {
  use: UseBoundStore<StoreApi<{ value: T }>>;
  /** Reads what was chosen in an earlier visit. */
  open(): Promise<void>;
  choose(value: T): void;
}

/** @param read gives what was stored, or null where it is no good any more. */
export function setting<T extends string>(
  name: string,
  plain: T,
  read: (stored: string) => T | null,
): Setting<T> {
  const use = create<{ value: T }>(() => ({ value: plain }));
  return {
    use,
    async open() {
      const stored = await loadSetting(name);
      const value = typeof stored === 'string' ? read(stored) : null;
      if (value !== null) use.setState({ value });
    },
    choose(value) {
      use.setState({ value });
      saveSetting(name, value).catch((error: unknown) => console.error(`${name} could not be stored`, error));
    },
  };
}
