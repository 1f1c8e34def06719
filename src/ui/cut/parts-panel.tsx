import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { Button } from 'react-native-paper';
import { splitIntoParts } from '@state/cut';
import { useJob } from '../job/job-context';
import { useTarget } from '../job/use-target';
import { NumberField } from '../parts/number-field';
import { Heading, Soft } from '../parts/words';
import { space } from '../theme/tokens';

/** Most seconds of a part. */
const LONGEST = 7200;

/** Splits a long cut into parts under a limit; each becomes a clip of its own. */
export function PartsPanel() {
  const job = useJob();
  const { placement, label } = useTarget();
  const [most, setMost] = useState<number | null>(null);
  const [overlap, setOverlap] = useState(0);
  const [said, setSaid] = useState<string | null>(null);
  const limit = most ?? placement.length.most;
  const split = () => {
    try {
      const count = splitIntoParts(job, limit, overlap);
      setSaid(
        count === 1
          ? `The clip fits into ${limit} s already, so it stays one.`
          : `${count} parts were made, each a clip of its own. The whole one is still there.`,
      );
    } catch {
      setSaid('The overlap must be shorter than half a part. Make it shorter.');
    }
  };
  return (
    <View style={styles.panel}>
      <Heading>Parts</Heading>
      <Soft>{`Divides at shots and pauses near the even split. ${label} takes ${placement.length.most} s.`}</Soft>
      <View style={styles.row}>
        <NumberField
          label="Longest part"
          unit="s"
          least={1}
          most={LONGEST}
          value={String(limit)}
          onTake={setMost}
        />
        <NumberField
          label="Overlap"
          unit="s"
          least={0}
          most={LONGEST}
          value={String(overlap)}
          onTake={setOverlap}
        />
      </View>
      <Button mode="outlined" onPress={split}>
        Split into parts
      </Button>
      {said !== null && <Soft role="status">{said}</Soft>}
    </View>
  );
}

const styles = StyleSheet.create({
  panel: { gap: space.s },
  row: { flexDirection: 'row', gap: space.m },
});
