import { StyleSheet, View } from 'react-native';
import { Button } from 'react-native-paper';
import { bytesLabel } from '@core/figures/figures';
import { cancelBringIn, useBringIn } from '@state/files';
import { StripBar } from '../parts/strip-bar';
import { Body, Soft } from '../parts/words';
import { card, space } from '../theme/tokens';

/** A file on its way in: how far, and a way to stop. */
export function BringInProgress() {
  const fileName = useBringIn((state) => state.fileName);
  const progress = useBringIn((state) => state.progress);
  if (!fileName) return null;
  const copying = progress?.stage === 'copy';
  const words = copying
    ? `${bytesLabel(progress.done)} of ${bytesLabel(progress.total)} copied into this browser`
    : progress
      ? 'Decoding the first frame'
      : 'Reading its facts';
  return (
    <View style={styles.box}>
      <Body>Bringing in {fileName}</Body>
      <StripBar
        label={`Bringing in ${fileName}`}
        done={copying ? progress.done : progress ? 1 : 0}
        total={copying ? progress.total : 1}
      />
      <View style={styles.row}>
        <Soft style={styles.words}>{words}</Soft>
        <Button onPress={cancelBringIn}>Cancel</Button>
      </View>
    </View>
  );
}

const styles = StyleSheet.create({
  box: {
    gap: space.s,
    padding: space.m,
    ...card,
  },
  row: { flexDirection: 'row', alignItems: 'center' },
  words: { flex: 1 },
});
