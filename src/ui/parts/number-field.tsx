import { type NumberLimits, readNumber } from '@core/entry/number-entry';
import { EntryField } from './entry-field';

interface Props extends NumberLimits {
  label: string;
  /** Text of the field while nobody types. */
  value: string;
  unit?: string;
  onTake: (value: number) => void;
}

/** A number that can be typed, within its bounds. */
export function NumberField({ onTake, least, most, ...field }: Props) {
  return (
    <EntryField
      {...field}
      onSubmit={(text) => {
        const read = readNumber(text, { least, most });
        if (typeof read !== 'number') return read.problem;
        onTake(read);
        return null;
      }}
    />
  );
}
