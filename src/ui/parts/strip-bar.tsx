import { StyleSheet, View } from 'react-native';
import { colours } from '../theme/tokens';

/** A strip that fills: how far long work is. */
export function StripBar({ label, done, total }: { label: string; done: number; total: number }) {
  const share = total > 0 ? Math.min(1, done / total) : 0;
  return (
    <View
      role="progressbar"
      aria-label={label}
      aria-valuemin={0}
      aria-valuemax={100}
      aria-valuenow={Math.round(share * 100)}
      style={styles.track}
    >
      <View style={[styles.fill, { width: `${share * 100}%` }]} />
    </View>
  );
}

const styles = StyleSheet.create({
  track: {
    height: 12,
    borderRadius: 3,
    borderWidth: 1,
    borderColor: colours.edge,
    backgroundColor: colours.sheet,
    overflow: 'hidden',
  },
  fill: { height: '100%', backgroundColor: colours.woad },
});
