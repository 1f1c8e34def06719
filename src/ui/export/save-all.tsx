import { StyleSheet, View } from 'react-native';
import { Button } from 'react-native-paper';
import { bytesLabel } from '@core/figures/figures';
import type { ExportRecord } from '@core/job/records';
import { troubleWords } from '@core/trouble/trouble';
import { canChooseFolder, saveAsArchive, saveIntoFolder, stopSaving, useSaveAll } from '@state/export';
import { useJob } from '../job/job-context';
import { Notice } from '../parts/notice';
import { saveFile } from '../parts/pick-file';
import { StripBar } from '../parts/strip-bar';
import { Soft } from '../parts/words';
import { space } from '../theme/tokens';

/** Saves all finished exports of the page at once. */
export function SaveAll({ records }: { records: readonly ExportRecord[] }) {
  const { title } = useJob();
  const { progress, told, trouble } = useSaveAll();
  const done = records.filter(({ state }) => state === 'done');
  if (done.length < 2) return null;
  const archive = async () => {
    const file = await saveAsArchive(done, title);
    if (file) saveFile(file);
  };
  if (progress)
    return (
      <View style={styles.group}>
        <Soft>{`Saving: ${bytesLabel(progress.done)} of ${bytesLabel(progress.total)}`}</Soft>
        <StripBar label="Saving all files" {...progress} />
        <Button style={styles.left} onPress={stopSaving}>
          Stop saving
        </Button>
      </View>
    );
  return (
    <View style={styles.group}>
      <View style={styles.actions}>
        {canChooseFolder() && (
          <Button mode="outlined" icon="folder-download-outline" onPress={() => void saveIntoFolder(done)}>
            {`Save all ${done.length} in a folder`}
          </Button>
        )}
        <Button mode="outlined" icon="zip-box-outline" onPress={() => void archive()}>
          {`Save all ${done.length} as a ZIP`}
        </Button>
      </View>
      {told && <Soft>{told}</Soft>}
      {trouble && (
        <Notice standing="warn" title={troubleWords(trouble).what}>
          {troubleWords(trouble).todo}
        </Notice>
      )}
    </View>
  );
}

const styles = StyleSheet.create({
  group: { gap: space.s },
  actions: { flexDirection: 'row', flexWrap: 'wrap', gap: space.s },
  left: { alignSelf: 'flex-start' },
});
