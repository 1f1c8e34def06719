import { Pressable, StyleSheet, Text, View } from 'react-native';
import { colours, fonts, sizes, space, TARGET } from '../theme/tokens';
import { useTooltip } from './use-tooltip';

interface Props<Value extends string> {
  label: string;
  value: Value;
  options: readonly { value: Value; label: string }[];
  onChange: (value: Value) => void;
  /** The key that takes the next one; a wide page names it where the pointer rests. */
  hotkey?: string;
}

/** More options than this stand in several rows. */
const ONE_ROW = 6;

/** A few options side by side, one of them taken. */
export function Choice<Value extends string>({ label, value, options, onChange, hotkey }: Props<Value>) {
  const area = useTooltip(hotkey === undefined ? null : `${label} (${hotkey})`);
  const many = options.length > ONE_ROW;
  return (
    <View ref={area} role="radiogroup" aria-label={label} style={[styles.row, many && styles.rows]}>
      {options.map((option) => {
        const on = option.value === value;
        return (
          <Pressable
            key={option.value}
            role="radio"
            aria-checked={on}
            aria-label={option.label}
            onPress={() => onChange(option.value)}
            style={[styles.option, many && styles.wide, on && styles.on]}
          >
            <Text style={[styles.words, on && styles.wordsOn]}>{option.label}</Text>
          </Pressable>
        );
      })}
    </View>
  );
}

const styles = StyleSheet.create({
  row: {
    flexDirection: 'row',
    borderWidth: 1,
    borderColor: colours.ink,
    borderRadius: 6,
    overflow: 'hidden',
  },
  rows: { flexWrap: 'wrap' },
  wide: { flexBasis: 110 },
  option: {
    flex: 1,
    minHeight: TARGET,
    paddingHorizontal: space.s,
    alignItems: 'center',
    justifyContent: 'center',
    backgroundColor: colours.sheet,
  },
  on: { backgroundColor: colours.ink },
  words: { fontFamily: fonts.strong, fontSize: sizes.small, color: colours.ink, textAlign: 'center' },
  wordsOn: { color: colours.onDye },
});
