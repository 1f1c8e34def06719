import { type Field, type FieldGroup, type Section, SECTIONS } from './limits/field';
import { LIMITS } from './limits/limits';

/** Fields of the outlet itself. */
export const SHEET_FIELDS: readonly Field[] = [
  { path: 'name', label: 'Outlet', as: { kind: 'text' } },
  { path: 'about', label: 'What it is', as: { kind: 'text' } },
  { path: 'date', label: 'Checked on', as: { kind: 'text' } },
  { path: 'source', label: 'Where the figures come from', as: { kind: 'text' } },
];

/** Field of a placement's name. */
export const NAME_FIELD: Field = { path: 'name', label: 'Placement', as: { kind: 'text' } };

/** Values of a placement that are no limits. */
const MORE_FIELDS: Partial<Record<Section, readonly Field[]>> = {
  Post: [{ path: 'muted', label: 'Plays without sound at first', as: { kind: 'flag' } }],
};

/** A part of a placement's form. */
export interface FormSection {
  title: Section;
  fields: readonly Field[];
  groups: readonly FieldGroup[];
}

/** Every plain value of a placement, by section. Sizes, zones and the ladder have forms of their own. */
export const PLACEMENT_FORM: readonly FormSection[] = SECTIONS.map((title) => {
  const own = LIMITS.filter(({ section }) => section === title);
  return {
    title,
    fields: [...own.flatMap(({ fields = [] }) => fields), ...(MORE_FIELDS[title] ?? [])],
    groups: own.flatMap(({ groups = [] }) => groups),
  };
});
