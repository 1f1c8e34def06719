import { StyleSheet, View } from 'react-native';
import { type FieldPath, useController } from 'react-hook-form';
import type { FieldGroup } from '@core/outlets/limits/field';
import type { RuleSheet } from '@core/outlets/rule-sheet';
import { RefusalNotice } from '../parts/refusal';
import { space } from '../theme/tokens';
import { listProblems } from './size-fields';
import { CheckBox } from '../parts/check-box';
import { type SheetControl, ValueField } from './value-field';

/** Values that are all there or all not. */
export function GroupFields({
  control,
  name,
  group,
}: {
  control: SheetControl;
  name: string;
  group: FieldGroup;
}) {
  const { field, fieldState } = useController({ control, name: name as FieldPath<RuleSheet> });
  const on = field.value !== null;
  return (
    <View style={styles.group}>
      <CheckBox
        label={group.label}
        on={on}
        onChange={(there) => field.onChange(there ? group.begins : null)}
      />
      {on && (
        <View style={styles.row}>
          {group.fields.map((one) => (
            <ValueField key={one.path} control={control} name={`${name}.${one.path}`} field={one} />
          ))}
        </View>
      )}
      {listProblems(fieldState.error).map((problem) => (
        <RefusalNotice key={problem}>{problem}</RefusalNotice>
      ))}
    </View>
  );
}

const styles = StyleSheet.create({
  group: { gap: space.xs },
  row: { flexDirection: 'row', flexWrap: 'wrap', gap: space.m },
});
