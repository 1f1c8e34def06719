import { create, type StoreApi, type UseBoundStore } from 'zustand';
import { type NamedFile, withNamed } from '@core/figures/named-file';
import { sharedSetting } from './store';

/** Things that a person named, kept in this browser, and handed on as a file. */
export interface NamedStore<Named extends { name: string }> {
  use: UseBoundStore<StoreApi<{ all: Named[] }>>;
  /** Reads what is stored, once the app opens, and hears what other tabs make of it; what is damaged is left out. */
  open(): Promise<void>;
  /**
   * Saves an entry; one of the same name is replaced. Resolves once it is stored.
   * @returns why it cannot be kept, or null.
   */
  save(named: Named): Promise<string | null>;
  drop(name: string): Promise<void>;
  /** All of them as a file to keep or hand on. */
  file(): File;
  /** Takes those of a file. @returns what is wrong with it, or null. */
  take(file: File): Promise<string | null>;
}

/** @param setting that they are stored under. @param fileName of the file that they go out as. @param label as sentences name them. */
export function namedStore<Named extends { name: string }>(
  setting: string,
  fileName: string,
  label: string,
  form: NamedFile<Named>,
): NamedStore<Named> {
  const use = create<{ all: Named[] }>(() => ({ all: [] }));
  const stored = sharedSetting<Named[]>(setting, {
    label,
    read(text, onLoss) {
      const { all, isWhole } = form.readEach(text ?? form.write([]));
      if (!isWhole) onLoss();
      return all;
    },
    write: form.write,
  });
  const show = (all: Named[]) => use.setState({ all });
  async function change(make: (all: Named[]) => Named[]): Promise<void> {
    // It is seen at once; what other tabs have besides comes with what is stored.
    show(make(use.getState().all));
    show(await stored.change(make));
  }
  return {
    use,
    async open() {
      show(await stored.load());
      stored.listen(show);
    },
    async save(named) {
      const problem = form.check(named);
      if (problem === null) await change((all) => withNamed(all, [named]));
      return problem;
    },
    drop: (name) => change((all) => all.filter((other) => other.name !== name)),
    file: () => new File([form.write(use.getState().all)], fileName, { type: 'application/json' }),
    async take(file) {
      const read = form.read(await file.text());
      if ('problem' in read) return read.problem;
      await change((all) => withNamed(all, read.all));
      return null;
    },
  };
}
