import type { RuleSheet } from './rule-sheet';

/** A value that two versions of a rule sheet do not share; undefined where one of them has none. */
export interface ValueChange {
  /** Where it lies, in words: `Short: length, most`. */
  place: string;
  before: string;
  after: string;
}

/** A name in the schema as words: `mostBytes` is `most bytes`. */
const worded = (key: string): string => key.replace(/[A-Z]/g, (letter) => ` ${letter.toLowerCase()}`);

/** What differs between two versions of a sheet, value by value, in the order of the sheet. */
export function sheetChanges(before: RuleSheet, after: RuleSheet): ValueChange[] {
  const { placements: old, ...oldHead } = before;
  const { placements: fresh, ...freshHead } = after;
  const ids = [...new Set([...old, ...fresh].map(({ id }) => id))];
  const nameOf = (id: string) => [...fresh, ...old].find((placement) => placement.id === id)?.name ?? id;
  return [
    ...changesIn(oldHead, freshHead, []).map(({ path, ...values }) => ({
      place: path.map(worded).join(', '),
      ...values,
    })),
    ...ids.flatMap((id) => {
      const of = (all: RuleSheet['placements']) => all.find((placement) => placement.id === id);
      const [was, is] = [of(old), of(fresh)];
      if (!was || !is)
        return [{ place: nameOf(id), before: was ? 'taken' : 'none', after: is ? 'taken' : 'none' }];
      return changesIn(was, is, []).map(({ path, ...values }) => ({
        place: `${nameOf(id)}: ${path.map(worded).join(', ')}`,
        ...values,
      }));
    }),
  ];
}

const isBranch = (value: unknown): value is Record<string, unknown> =>
  typeof value === 'object' && value !== null && !Array.isArray(value);

function changesIn(
  before: unknown,
  after: unknown,
  path: string[],
): { path: string[]; before: string; after: string }[] {
  if (isBranch(before) && isBranch(after)) {
    const keys = [...new Set([...Object.keys(before), ...Object.keys(after)])];
    return keys.flatMap((key) => changesIn(before[key], after[key], [...path, key]));
  }
  const [was, is] = [shown(before), shown(after)];
  return was === is ? [] : [{ path, before: was, after: is }];
}

/** A value as it is read by people. */
function shown(value: unknown): string {
  if (value === null || value === undefined) return 'none';
  if (typeof value === 'boolean') return value ? 'yes' : 'no';
  if (Array.isArray(value)) return value.length === 0 ? 'none' : value.map(shown).join('; ');
  if (isBranch(value)) return Object.values(value).map(shown).join(' ');
  return String(value as string | number);
}
