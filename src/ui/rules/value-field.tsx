import { StyleSheet, View } from 'react-native';
import { type Control, type FieldPath, useController } from 'react-hook-form';
import { readNumber } from '@core/entry/number-entry';
import { type Field, type FieldKind, type Option, formatScaled } from '@core/outlets/limits/field';
import type { RuleSheet } from '@core/outlets/rule-sheet';
import { compareRates, type FrameRate, rateLabel, STANDARD_RATES } from '@core/time/frame-rate';
import { CheckBox } from '../parts/check-box';
import { Choice } from '../parts/choice';
import { EntryField } from '../parts/entry-field';
import { RefusalNotice } from '../parts/refusal';
import { Soft } from '../parts/words';
import { space } from '../theme/tokens';

/** A form of a rule sheet. */
export type SheetControl = Control<RuleSheet>;

interface Props {
  control: SheetControl;
  /** In the sheet. */
  name: string;
  field: Field;
}

/** Field for one value of a sheet, with its error. */
export function ValueField({ control, name, field }: Props) {
  const { field: bound, fieldState } = useController({ control, name: name as FieldPath<RuleSheet> });
  const problem = fieldState.error?.message ?? fieldState.error?.root?.message;
  return (
    <View style={styles.field}>
      <Entry label={field.label} as={field.as} value={bound.value} onChange={bound.onChange} />
      {problem !== undefined && <RefusalNotice>{problem}</RefusalNotice>}
    </View>
  );
}

interface EntryProps<Kind extends FieldKind = FieldKind> {
  label: string;
  as: Kind;
  value: unknown;
  onChange: (value: unknown) => void;
}
type FieldProps<K extends FieldKind['kind']> = EntryProps<Extract<FieldKind, { kind: K }>>;

function Entry(props: EntryProps) {
  switch (props.as.kind) {
    case 'text':
      return <TextEntry {...(props as FieldProps<'text'>)} />;
    case 'number':
      return <NumberEntry {...(props as FieldProps<'number'>)} />;
    case 'numbers':
      return <NumbersEntry {...(props as FieldProps<'numbers'>)} />;
    case 'flag':
      return <CheckBox label={props.label} on={props.value === true} onChange={props.onChange} />;
    case 'one':
      return <OneEntry {...(props as FieldProps<'one'>)} />;
    case 'some':
      return <SomeEntry {...(props as FieldProps<'some'>)} />;
    case 'rate':
      return <RateEntry {...(props as FieldProps<'rate'>)} />;
  }
}

function TextEntry({ label, as, value, onChange }: FieldProps<'text'>) {
  return (
    <EntryField
      label={as.optional ? `${label} (or none)` : label}
      value={(value as string | null) ?? ''}
      onSubmit={(text) => {
        onChange(as.optional && text === '' ? null : text);
        return null;
      }}
    />
  );
}

function NumberEntry({ label, as: { unit, scale, optional }, value, onChange }: FieldProps<'number'>) {
  return (
    <EntryField
      label={optional ? `${label} (or none)` : label}
      value={typeof value === 'number' ? formatScaled(value, scale) : ''}
      {...(unit === '' ? {} : { unit })}
      onSubmit={(text) => {
        if (optional && text === '') {
          onChange(null);
          return null;
        }
        const read = readNumber(text, {});
        if (typeof read !== 'number') return read.problem;
        // What is counted in whole units may not come out whole by a fraction of a bit.
        onChange(scale === 1 ? read : Math.round(read * scale));
        return null;
      }}
    />
  );
}

function NumbersEntry({ label, as: { unit, scale }, value, onChange }: FieldProps<'numbers'>) {
  return (
    <EntryField
      label={`${label}, one beside the other`}
      unit={unit}
      value={(value as number[]).map((one) => formatScaled(one, scale)).join(' ')}
      onSubmit={(text) => {
        const read = text.split(/[\s;]+/).map((one) => readNumber(one, { least: 0 }));
        const wrong = read.find((one) => typeof one !== 'number');
        if (wrong !== undefined && typeof wrong !== 'number') return wrong.problem;
        onChange(read.map((one) => Math.round((one as number) * scale)));
        return null;
      }}
    />
  );
}

function OneEntry({ label, as: { options, number }, value, onChange }: FieldProps<'one'>) {
  return (
    <>
      <Soft>{label}</Soft>
      <Choice
        label={label}
        value={String(value)}
        options={options}
        onChange={(chosen) => onChange(number ? Number(chosen) : chosen)}
      />
    </>
  );
}

function SomeEntry({ label, as: { options }, value, onChange }: FieldProps<'some'>) {
  const taken = value as string[];
  const toggle = ({ value: one }: Option) =>
    // In the order of the options, whatever order they were tapped in.
    onChange(
      options
        .map((option) => option.value)
        .filter((option) => (option === one ? !taken.includes(option) : taken.includes(option))),
    );
  return (
    <>
      <Soft>{label}</Soft>
      <View role="group" aria-label={label} style={styles.row}>
        {options.map((option) => (
          <CheckBox
            key={option.value}
            label={option.label}
            on={taken.includes(option.value)}
            onChange={() => toggle(option)}
          />
        ))}
      </View>
    </>
  );
}

function RateEntry({ label, value, onChange }: FieldProps<'rate'>) {
  const rate = value as FrameRate;
  const known = STANDARD_RATES.some((one) => compareRates(one, rate) === 0);
  const rates = known ? STANDARD_RATES : [...STANDARD_RATES, rate];
  return (
    <EntryField
      label={label}
      unit="fps"
      value={rateLabel(rate)}
      onSubmit={(text) => {
        const named = rates.find((one) => rateLabel(one) === text.replace(',', '.'));
        if (named) {
          onChange(named);
          return null;
        }
        const read = readNumber(text, { least: 1, most: 240 });
        if (typeof read !== 'number') return read.problem;
        onChange({ num: Math.round(read * 1000), den: 1000 });
        return null;
      }}
    />
  );
}

const styles = StyleSheet.create({
  field: { gap: space.xs, flexGrow: 1, minWidth: 150 },
  row: { flexDirection: 'row', flexWrap: 'wrap', columnGap: space.s },
  check: { paddingHorizontal: 0, paddingVertical: 0, minHeight: 44 },
  label: { textAlign: 'left', fontSize: 15 },
});
