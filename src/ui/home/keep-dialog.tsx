import { useEffect, useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { Button, Dialog } from 'react-native-paper';
import { bytesLabel } from '@core/figures/figures';
import { dropMaster } from '@state/files';
import type { JobListEntry } from '@state/job-list-entry';
import { forgetRateTrials } from '@state/export';
import { type JobStorage, measureStorage } from '@state/app';
import { ModalDialog } from '../parts/modal-dialog';
import { useLatest } from '../parts/use-latest';
import { Body, Figures, Soft, Strong } from '../parts/words';
import { space } from '../theme/tokens';

/** Dialog on the storage that a job uses, master by master, and a way to let a master go and keep the work. */
export function KeepDialog({ listed, onClose }: { listed: JobListEntry; onClose: () => void }) {
  const [storage, setStorage] = useState<JobStorage | null>(null);
  const takeStorage = useLatest(setStorage);
  // eslint-disable-next-line react-hooks/exhaustive-deps -- what takes the answer is made anew each time
  useEffect(() => void takeStorage(measureStorage(listed)), [listed]);
  const { id } = listed.head;
  const after = async (deleted: Promise<unknown>) => {
    await deleted;
    await takeStorage(measureStorage(listed));
  };
  return (
    <ModalDialog title="Stored files" onClose={onClose}>
      <Dialog.ScrollArea>
        <View role="list" aria-label="Stored files" style={styles.list}>
          {storage?.masters.map(({ fingerprint, fileName, bytes, made, sharedWith }) => (
            <View key={fingerprint} role="listitem" aria-label={fileName} style={styles.row}>
              <Strong>{fileName}</Strong>
              <Figures>{bytes > 0 ? bytesLabel(bytes) : 'not in this browser'}</Figures>
              {made > 0 && <Soft>{`Proxy, filmstrip and stills: ${bytesLabel(made)}`}</Soft>}
              {sharedWith.length > 0 && <Soft>{`Also used by ${sharedWith.join(', ')}`}</Soft>}
              {bytes > 0 && sharedWith.length === 0 && (
                <Button
                  mode="outlined"
                  style={styles.left}
                  onPress={() => void after(dropMaster(id, fingerprint))}
                >
                  Remove the master, keep the work
                </Button>
              )}
              {bytes === 0 && <Soft>The job asks for the same file when you open it.</Soft>}
            </View>
          ))}
          <View role="listitem" aria-label="Exports" style={styles.row}>
            <Strong>Exports</Strong>
            <Figures>{bytesLabel(storage?.exports ?? 0)}</Figures>
          </View>
          {storage !== null && storage.trials > 0 && (
            <View role="listitem" aria-label="Measured bit rates" style={styles.row}>
              <Strong>Measured bit rates</Strong>
              <Figures>{bytesLabel(storage.trials)}</Figures>
              <Button mode="outlined" style={styles.left} onPress={() => void after(forgetRateTrials(id))}>
                Delete what was measured
              </Button>
            </View>
          )}
          <Body>Remove a master only if you have its file elsewhere.</Body>
        </View>
      </Dialog.ScrollArea>
      <Dialog.Actions>
        <Button onPress={onClose}>Close</Button>
      </Dialog.Actions>
    </ModalDialog>
  );
}

const styles = StyleSheet.create({
  list: { gap: space.m, paddingVertical: space.m },
  row: { gap: 2 },
  left: { alignSelf: 'flex-start', marginTop: space.xs },
});
