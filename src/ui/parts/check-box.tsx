import MaterialCommunityIcons from '@expo/vector-icons/MaterialCommunityIcons';
import { Pressable, StyleSheet } from 'react-native';
import { colours, space, TARGET } from '../theme/tokens';
import { Body } from './words';

/** A box to tick, with its words. */
export function CheckBox({
  label,
  on,
  onChange,
}: {
  label: string;
  on: boolean;
  onChange: (on: boolean) => void;
}) {
  return (
    <Pressable
      role="checkbox"
      aria-label={label}
      aria-checked={on}
      onPress={() => onChange(!on)}
      style={styles.row}
    >
      <MaterialCommunityIcons
        name={on ? 'checkbox-marked' : 'checkbox-blank-outline'}
        size={24}
        color={colours.woad}
      />
      <Body style={styles.words}>{label}</Body>
    </Pressable>
  );
}

const styles = StyleSheet.create({
  row: { flexDirection: 'row', alignItems: 'center', gap: space.s, minHeight: TARGET },
  words: { flexShrink: 1 },
});
