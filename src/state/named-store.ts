import { create, type StoreApi, type UseBoundStore } from 'zustand';
import { type NamedFile, withNamed } from '@core/figures/named-file';
import { loadSetting, saveSetting } from './store/storage';

/** Things that a person named, kept in this browser, and handed on as a file. */
export interface NamedStore<Named extends { name: string }> {
  use: UseBoundStore<StoreApi<{ all: Named[] }>>;
  /** Reads what is stored, once the app opens; what is damaged is left out. */
  open(): Promise<void>;
  /** One of the same name is replaced. */
  save(named: Named): void;
  drop(name: string): void;
  /** All of them as a file to keep or hand on. */
  file(): File;
  /** Takes those of a file. @returns what is wrong with it, or null. */
  take(file: File): Promise<string | null>;
}

/** @param setting that they are stored under. @param fileName of the file that they go out as. */
export function namedStore<Named extends { name: string }>(
  setting: string,
  fileName: string,
  form: NamedFile<Named>,
): NamedStore<Named> {
  const use = create<{ all: Named[] }>(() => ({ all: [] }));
  const keep = (all: Named[]) => {
    use.setState({ all });
    void saveSetting(setting, form.write(all));
  };
  return {
    use,
    async open() {
      const read = form.read((await loadSetting(setting)) ?? form.write([]));
      if ('all' in read) use.setState({ all: read.all });
    },
    save: (named) => keep(withNamed(use.getState().all, [named])),
    drop: (name) => keep(use.getState().all.filter((other) => other.name !== name)),
    file: () => new File([form.write(use.getState().all)], fileName, { type: 'application/json' }),
    async take(file) {
      const read = form.read(await file.text());
      if ('problem' in read) return read.problem;
      keep(withNamed(use.getState().all, read.all));
      return null;
    },
  };
}
