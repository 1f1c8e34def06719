import { clamp } from '../../picture/size';
import type { Bounds, LayoutField } from './layout-kind';

type Step<Settings> = Extract<LayoutField<Settings>, { type: 'step' }>;

/** A step of one number of some settings, held inside its bounds; at its end it changes nothing. */
export function stepField<Settings extends object, Name extends keyof Settings & string>(
  settings: Settings,
  name: Name,
  [min, max]: Bounds,
  next: (value: number) => number,
  words: Pick<Step<Settings>, 'icon' | 'label' | 'words'> & { joins?: string },
): Step<Settings> {
  const value = settings[name] as number;
  const to = clamp(next(value), min, max);
  return { type: 'step', joins: name, ...words, settings: to === value ? null : { ...settings, [name]: to } };
}
