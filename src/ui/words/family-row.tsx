import { Pressable, StyleSheet, Text } from 'react-native';
import { FAMILIES } from '@core/words/families';
import { ToolRow } from '../parts/tool-row';
import { Soft } from '../parts/words';
import { colours, fonts, space, TARGET } from '../theme/tokens';

/** Font families by what they are like, with what each is called. */
export function FamilyRow({ value, onTake }: { value: string; onTake: (family: string) => void }) {
  return (
    <ToolRow gap={space.s}>
      {Object.entries(FAMILIES).map(([family, { label, name }]) => (
        <Pressable
          key={family}
          role="radio"
          aria-label={`${label}: ${name}`}
          aria-checked={family === value}
          onPress={() => onTake(family)}
          style={[styles.family, family === value && styles.on]}
        >
          <Text style={styles.label}>{label}</Text>
          <Soft>{name}</Soft>
        </Pressable>
      ))}
    </ToolRow>
  );
}

const styles = StyleSheet.create({
  family: {
    minHeight: TARGET,
    paddingHorizontal: space.m,
    paddingVertical: space.xs,
    borderRadius: 6,
    borderWidth: 2,
    borderColor: colours.hairline,
    justifyContent: 'center',
  },
  on: { borderColor: colours.woad, backgroundColor: colours.woadWash },
  label: { fontFamily: fonts.strong, fontSize: 15, color: colours.ink },
});
