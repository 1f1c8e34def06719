import { useState } from 'react';
import { StyleSheet, TextInput, View } from 'react-native';
import { colours, fonts, sizes, space, TARGET } from '../theme/tokens';
import { RefusalNotice } from './refusal';
import { Soft } from './words';

interface Props {
  label: string;
  /** Text of the field while nobody types. */
  value: string;
  unit?: string;
  /** Takes what was typed; what is wrong with it, in words, when it cannot be taken. */
  onSubmit: (text: string) => string | null;
}

/** Text that is being typed, or that was refused while the field stood at a value. */
interface TypedText {
  text: string;
  refused: { problem: string; value: string } | null;
}

/**
 * A figure that can be typed: taken on Enter or on leaving the field. What is refused stays to be mended, with the
 * reason, until the value changes.
 */
export function EntryField({ label, value, unit, onSubmit }: Props) {
  const [entry, setEntry] = useState<TypedText | null>(null);
  const typed = entry?.refused && entry.refused.value !== value ? null : entry;
  const submit = () => {
    const text = typed?.text.trim();
    if (text === undefined || text === value) return setEntry(null);
    const problem = onSubmit(text);
    setEntry(problem === null ? null : { text, refused: { problem, value: value } });
  };
  const problem = typed?.refused?.problem ?? null;
  return (
    <View style={styles.field}>
      <Soft>{unit ? `${label}, ${unit}` : label}</Soft>
      <TextInput
        aria-label={label}
        aria-invalid={problem !== null}
        value={typed?.text ?? value}
        onChangeText={(text) => setEntry({ text, refused: null })}
        onBlur={submit}
        onSubmitEditing={submit}
        selectTextOnFocus
        style={[styles.input, problem !== null && styles.refused]}
      />
      {problem !== null && <RefusalNotice>{problem}</RefusalNotice>}
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
    fontSize: sizes.field,
    color: colours.ink,
  },
  refused: { borderColor: colours.madder, borderWidth: 2 },
});
