import { type FrameRate, rateLabel } from '../../time/frame-rate';

/** A value that can be chosen, and its label. */
export interface Option {
  value: string;
  label: string;
}

/** Kinds of entry for a placement's values. Numbers are shown divided by `scale`, in `unit`. */
export type FieldKind =
  | { kind: 'text'; optional?: true }
  | { kind: 'number'; unit: string; scale: number; optional?: true }
  | { kind: 'numbers'; unit: string; scale: number }
  | { kind: 'flag' }
  | { kind: 'one'; options: readonly Option[]; number?: true }
  | { kind: 'some'; options: readonly Option[] }
  | { kind: 'rate' };

/** A value of a placement, as a form shows it. */
export interface Field {
  /** Where it lies in the placement: names joined by points. */
  path: string;
  label: string;
  as: FieldKind;
}

/** Values that are all there or all not: what they are, and what they begin with. */
export interface FieldGroup {
  path: string;
  label: string;
  begins: object;
  fields: readonly Field[];
}

/** Parts of a placement's form, in their order. */
export const SECTIONS = ['Length', 'File and picture', 'Sound', 'Words', 'Post'] as const;
export type Section = (typeof SECTIONS)[number];

/** Makes options of values. */
export const listOptions = (values: readonly string[], label = (value: string): string => value): Option[] =>
  values.map((value) => ({ value, label: label(value) }));

/** A value with a capital at its beginning. */
export const capitalize = (value: string): string => value.charAt(0).toUpperCase() + value.slice(1);

/** Declares a number that is always there. @param scale how many of what is stored make one of what is shown. */
export const numberField = (unit: string, scale = 1) => ({ kind: 'number', unit, scale }) as const;
/** Declares a number that may be missing. */
export const optionalNumberField = (unit: string, scale = 1) =>
  ({ kind: 'number', unit, scale, optional: true }) as const;

/** Writes a number as it is shown: with as many places as it has, so that none is made up. */
export const formatScaled = (value: number, scale: number): string =>
  String(Number((value / scale).toPrecision(12)));

const withUnit = (text: string, unit: string): string => (unit === '' ? text : `${text} ${unit}`);

/** Writes a value of a field for people to read. */
export function fieldValueLabel({ as }: Field, value: unknown): string {
  if (value === null || value === undefined || value === '') return 'none';
  switch (as.kind) {
    case 'text':
      return String(value as string);
    case 'number':
      return withUnit(formatScaled(value as number, as.scale), as.unit);
    case 'numbers':
      return withUnit((value as number[]).map((one) => formatScaled(one, as.scale)).join(', '), as.unit);
    case 'flag':
      return value === true ? 'yes' : 'no';
    case 'one':
      return findLabel(as.options, value as string | number);
    case 'some':
      return (value as string[]).map((one) => findLabel(as.options, one)).join(', ') || 'none';
    case 'rate':
      return `${rateLabel(value as FrameRate)} fps`;
  }
}

const findLabel = (options: readonly Option[], value: string | number): string =>
  options.find((option) => option.value === String(value))?.label ?? String(value);
