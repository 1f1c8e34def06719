import { useState } from 'react';
import { StyleSheet, TextInput, View } from 'react-native';
import { colours, fonts, space, TARGET } from '../theme/tokens';
import { Soft } from './words';

interface Props {
  label: string;
  /** What stands in the field while nobody types. */
  value: string;
  unit?: string;
  /** Takes what was typed; false puts the old value back. */
  onSubmit: (text: string) => boolean;
}

/** A figure that can be typed: taken on Enter or on leaving the field. */
export function NumberField({ label, value, unit, onSubmit }: Props) {
  const [typed, setTyped] = useState<string | null>(null);
  const submit = () => {
    if (typed !== null && typed.trim() !== value) onSubmit(typed.trim());
    setTyped(null);
  };
  return (
    <View style={styles.field}>
      <Soft>{unit ? `${label}, ${unit}` : label}</Soft>
      <TextInput
        aria-label={label}
        value={typed ?? value}
        onChangeText={setTyped}
        onBlur={submit}
        onSubmitEditing={submit}
        selectTextOnFocus
        style={styles.input}
      />
    </View>
  );
}

const styles = StyleSheet.create({
  field: { flex: 1, minWidth: 72, gap: 2 },
  input: {
    minHeight: TARGET,
    width: '100%',
    borderWidth: 1,
    borderColor: colours.edge,
    borderRadius: 6,
    paddingHorizontal: space.s,
    backgroundColor: colours.sheet,
    fontFamily: fonts.figures,
    fontSize: 15,
    color: colours.ink,
  },
});
