import MaterialCommunityIcons from '@expo/vector-icons/MaterialCommunityIcons';
import { Pressable, StyleSheet, View } from 'react-native';
import { colours, space, TARGET } from '../theme/tokens';
import { Body, Soft } from './words';

interface Props<Value extends string> {
  label: string;
  value: Value;
  options: readonly { value: Value; label: string; about?: string }[];
  onChange: (value: Value) => void;
}

/** Options one below the other, each with what it is for; one of them taken. */
export function OptionList<Value extends string>({ label, value, options, onChange }: Props<Value>) {
  return (
    <View role="radiogroup" aria-label={label} style={styles.list}>
      {options.map((option) => {
        const on = option.value === value;
        return (
          <Pressable
            key={option.value}
            role="radio"
            aria-checked={on}
            aria-label={option.label}
            onPress={() => onChange(option.value)}
            style={styles.row}
          >
            <MaterialCommunityIcons
              name={on ? 'radiobox-marked' : 'radiobox-blank'}
              size={24}
              color={colours.woad}
            />
            <View style={styles.words}>
              <Body>{option.label}</Body>
              {option.about !== undefined && <Soft>{option.about}</Soft>}
            </View>
          </Pressable>
        );
      })}
    </View>
  );
}

const styles = StyleSheet.create({
  list: { alignSelf: 'stretch' },
  row: {
    flexDirection: 'row',
    alignItems: 'center',
    gap: space.s,
    minHeight: TARGET,
    paddingVertical: space.xs,
  },
  words: { flexShrink: 1 },
});
