import { StyleSheet, View } from 'react-native';
import { space } from '../theme/tokens';
import { Figures, Soft } from './words';

/** Facts as pairs of name and figure, two columns wide. */
export function Facts({
  facts,
  label,
}: {
  facts: readonly { name: string; value: string }[];
  label?: string;
}) {
  return (
    <View role="list" aria-label={label} style={styles.grid}>
      {facts.map(({ name, value }) => (
        <View key={name} role="listitem" aria-label={`${name}: ${value}`} style={styles.fact}>
          <Soft>{name}</Soft>
          <Figures style={styles.value}>{value}</Figures>
        </View>
      ))}
    </View>
  );
}

const styles = StyleSheet.create({
  grid: { flexDirection: 'row', flexWrap: 'wrap', rowGap: space.s },
  fact: { width: '50%', paddingRight: space.s },
  value: { fontSize: 14 },
});
