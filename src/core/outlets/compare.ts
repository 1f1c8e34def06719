import { type Field, type FieldGroup, fieldValueLabel } from './limits/field';
import type { Placement } from './placement';
import { NAME_FIELD, PLACEMENT_FORM, SHEET_FIELDS } from './placement-form';
import type { RuleSheet } from './rule-sheet';

/** A value that two versions of a rule sheet do not share. */
export interface ValueChange {
  /** Where it lies, as its form calls it: `Short, length: Longest`. */
  place: string;
  before: string;
  after: string;
}

/** Lists what differs between two versions of a sheet, value by value, in the order of its form. */
export function sheetChanges(before: RuleSheet, after: RuleSheet): ValueChange[] {
  const ids = [...new Set([...before.placements, ...after.placements].map(({ id }) => id))];
  return [
    ...SHEET_FIELDS.flatMap((field) => compareField(field.label, field, before, after)),
    ...ids.flatMap((id) => {
      const [was, is] = [before, after].map((sheet) => sheet.placements.find((one) => one.id === id));
      if (was && is) return comparePlacements(was, is);
      return { place: (is ?? was)?.name ?? id, before: was ? 'taken' : 'none', after: is ? 'taken' : 'none' };
    }),
  ];
}

function comparePlacements(before: Placement, after: Placement): ValueChange[] {
  const { name } = after;
  const pickDrawn = ({ sizes, zones, ladder }: Placement) => ({ sizes, zones, ladder });
  return [
    ...compareField(name, NAME_FIELD, before, after),
    ...compareStructures(pickDrawn(before), pickDrawn(after), []).map(({ path, ...values }) => ({
      place: `${name}: ${path.map(splitWords).join(', ')}`,
      ...values,
    })),
    ...PLACEMENT_FORM.flatMap(({ title, fields, groups }) => {
      const section = `${name}, ${title.toLowerCase()}`;
      return [
        ...fields.flatMap((field) => compareField(`${section}: ${field.label}`, field, before, after)),
        ...groups.flatMap((group) => compareGroup(section, group, before, after)),
      ];
    }),
  ];
}

/** Reads a value by its path. */
const readPath = (from: unknown, path: string): unknown =>
  path.split('.').reduce<unknown>((at, key) => (isBranch(at) ? at[key] : undefined), from);

function compareField(place: string, field: Field, before: unknown, after: unknown): ValueChange[] {
  const [was, is] = [before, after].map((one) => fieldValueLabel(field, readPath(one, field.path)));
  return was === is ? [] : [{ place, before: was ?? '', after: is ?? '' }];
}

function compareGroup(section: string, group: FieldGroup, before: unknown, after: unknown): ValueChange[] {
  const place = `${section}: ${group.label}`;
  const [was, is] = [readPath(before, group.path), readPath(after, group.path)];
  if (isBranch(was) && isBranch(is))
    return group.fields.flatMap((field) => compareField(`${place}, ${field.label}`, field, was, is));
  const formatValue = (value: unknown): string =>
    isBranch(value)
      ? group.fields.map((field) => `${field.label} ${fieldValueLabel(field, value[field.path])}`).join(', ')
      : 'none';
  return isBranch(was) === isBranch(is) ? [] : [{ place, before: formatValue(was), after: formatValue(is) }];
}

/** A name in the schema as words: `mostBytes` is `most bytes`. */
const splitWords = (key: string): string => key.replace(/[A-Z]/g, (letter) => ` ${letter.toLowerCase()}`);

const isBranch = (value: unknown): value is Record<string, unknown> =>
  typeof value === 'object' && value !== null && !Array.isArray(value);

/** Lists changes of values that have forms of their own: sizes, zones, the ladder. */
function compareStructures(
  before: unknown,
  after: unknown,
  path: string[],
): { path: string[]; before: string; after: string }[] {
  if (isBranch(before) && isBranch(after)) {
    const keys = [...new Set([...Object.keys(before), ...Object.keys(after)])];
    return keys.flatMap((key) => compareStructures(before[key], after[key], [...path, key]));
  }
  const [was, is] = [formatValue(before), formatValue(after)];
  return was === is ? [] : [{ path, before: was, after: is }];
}

/** A value as it is read by people. */
function formatValue(value: unknown): string {
  if (value === null || value === undefined) return 'none';
  if (Array.isArray(value)) return value.length === 0 ? 'none' : value.map(formatValue).join('; ');
  if (isBranch(value)) return Object.values(value).map(formatValue).join(' ');
  return String(value as string | number);
}
