import { StyleSheet, View } from 'react-native';
import { Mark } from '../parts/mark';
import { Soft } from '../parts/words';
import { space } from '../theme/tokens';
import type { JobStanding } from './job-standing';

/** Marks with their words, one after another. */
export function StandingRow({ standings }: { standings: readonly JobStanding[] }) {
  return (
    <View style={styles.row}>
      {standings.map(({ standing, words }) => (
        <View key={words} style={styles.standing}>
          <Mark standing={standing} size={16} />
          <Soft>{words}</Soft>
        </View>
      ))}
    </View>
  );
}

const styles = StyleSheet.create({
  row: { flexDirection: 'row', flexWrap: 'wrap', columnGap: space.m },
  standing: { flexDirection: 'row', alignItems: 'center', gap: space.xs },
});
