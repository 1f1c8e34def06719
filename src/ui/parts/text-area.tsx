import { StyleSheet, TextInput, View } from 'react-native';
import { colours, fonts, sizes, space, TARGET } from '../theme/tokens';
import { Soft } from './words';

interface Props {
  label: string;
  value: string;
  onChange: (text: string) => void;
  /** Rows that are seen at once. */
  rows?: number;
  placeholder?: string;
  most?: number;
  /** Told where the cursor is: UTF-16 units from the start. */
  onCursor?: (place: number) => void;
  onFocus?: () => void;
  onBlur?: () => void;
}

/** Text of several lines, taken as it is typed. */
export function TextArea({ label, value, onChange, rows = 2, placeholder, most, ...heard }: Props) {
  const { onCursor, onFocus, onBlur } = heard;
  return (
    <View style={styles.field}>
      <Soft>{label}</Soft>
      <TextInput
        aria-label={label}
        multiline
        value={value}
        onChangeText={onChange}
        onSelectionChange={({ nativeEvent }) => onCursor?.(nativeEvent.selection.start)}
        onFocus={onFocus}
        onBlur={onBlur}
        placeholder={placeholder}
        placeholderTextColor={colours.softInk}
        {...(most === undefined ? {} : { maxLength: most })}
        style={[styles.input, { height: Math.max(TARGET, rows * 21 + 2 * space.s) }]}
      />
    </View>
  );
}

const styles = StyleSheet.create({
  field: { gap: 2 },
  input: {
    width: '100%',
    borderWidth: 1,
    borderColor: colours.edge,
    borderRadius: 6,
    padding: space.s,
    backgroundColor: colours.sheet,
    fontFamily: fonts.text,
    fontSize: sizes.field,
    lineHeight: 21,
    color: colours.ink,
  },
});
