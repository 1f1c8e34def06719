import { StyleSheet, View } from 'react-native';
import { Button } from 'react-native-paper';
import { bytesLabel } from '@core/figures/figures';
import { cancelJobFile, useJobFiles } from '@state/files';
import { StripBar } from '../parts/strip-bar';
import { Body, Soft } from '../parts/words';
import { card, space } from '../theme/tokens';

/** A job on its way into a file or out of one: how far, and a way to stop. */
export function JobFileProgress() {
  const busy = useJobFiles((state) => state.busy);
  if (!busy) return null;
  const { name, progress } = busy;
  const { done = 0, total = 1 } = progress ?? {};
  return (
    <View style={styles.box}>
      <Body>{name}</Body>
      <StripBar label={name} done={done} total={total} />
      <View style={styles.row}>
        <Soft style={styles.words}>
          {progress ? `${bytesLabel(done)} of ${bytesLabel(total)}` : 'Reading it'}
        </Soft>
        <Button onPress={cancelJobFile}>Cancel</Button>
      </View>
    </View>
  );
}

const styles = StyleSheet.create({
  box: { gap: space.s, padding: space.m, ...card },
  row: { flexDirection: 'row', alignItems: 'center' },
  words: { flex: 1 },
});
