import { useRouter } from 'expo-router';
import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { Button } from 'react-native-paper';
import { bitsLabel, bytesLabel } from '@core/figures/figures';
import { onClip } from '@core/job/job';
import { FORMATS } from '@core/rate/format';
import { type ExportRecord, isUnfinished } from '@core/job/records';
import { hasOrder, resumeExport, deleteExport, loadExportedFile, startExport } from '@state/export';
import { CAPTION_FORMS } from '@core/words/files/write-captions';
import { captionsFile } from '@state/words';
import { useJob } from '../job/job-context';
import { canvasMark } from '../theme/dyes';
import { Mark } from '../parts/mark';
import { Notice } from '../parts/notice';
import { saveFile } from '../parts/pick-file';
import { Soft, Strong } from '../parts/words';
import { colours, space } from '../theme/tokens';
import { ProofTable } from './proof-table';
import { useCanvasLabel } from '../job/use-target';

/** Card of an export that ended, with its result. */
export function ExportCard({ record, stale }: { record: ExportRecord; stale: boolean }) {
  const label = useCanvasLabel()(record);
  const facts = [
    `${record.width}×${record.height}`,
    FORMATS[record.format].name,
    record.videoBits > 0 ? bitsLabel(record.videoBits) : '',
    record.bytes === null ? '' : bytesLabel(record.bytes),
    record.tookSeconds === null ? '' : `made in ${record.tookSeconds.toFixed(0)} s`,
  ];
  return (
    <View
      role="listitem"
      aria-label={`${record.fileName}: ${record.state}`}
      style={[styles.card, { borderLeftColor: canvasMark(record.dye).dye }]}
    >
      <Strong>{record.fileName}</Strong>
      <Soft>
        {label}, {facts.filter(Boolean).join(', ')}
      </Soft>
      {isUnfinished(record) ? (
        <Soft>It is being made in another tab.</Soft>
      ) : (
        <Ended record={record} stale={stale} />
      )}
    </View>
  );
}

function Ended({ record, stale }: { record: ExportRecord; stale: boolean }) {
  const job = useJob();
  const router = useRouter();
  const [gone, setGone] = useState(false);
  const again = async () => {
    // What was asked for then is not what the clip is now.
    if (!stale && (await hasOrder(record.id))) return resumeExport(job.id, record);
    const made = startExport(onClip(job, record.clip), [record.canvas]);
    if (made.length > 0) void deleteExport(job.id, record.id);
  };
  const download = async () => {
    const file = await loadExportedFile(record);
    if (file) saveFile(file);
    else setGone(true);
  };
  const remove = <Button onPress={() => void deleteExport(job.id, record.id)}>Delete</Button>;
  if (record.state !== 'done' || gone) {
    const why = gone
      ? 'The browser deleted this file to make room.'
      : (record.error ?? 'The page was closed while it was being made. Nothing of it was kept.');
    return (
      <Notice
        standing="warn"
        title={
          record.state === 'failed'
            ? 'The export failed'
            : gone
              ? 'The file is gone'
              : 'The export was interrupted'
        }
        actions={
          <>
            <Button mode="contained" onPress={() => void again()}>
              {stale ? 'Export it as it is now' : record.state === 'failed' ? 'Try again' : 'Start again'}
            </Button>
            {remove}
          </>
        }
      >
        {stale ? `${why} The clip was changed since.` : why}
      </Notice>
    );
  }
  return (
    <>
      {record.proof && <ProofTable proof={record.proof} />}
      {stale && (
        <View style={styles.stale}>
          <Mark standing="note" size={20} />
          <Soft>Made before your last changes to the clip.</Soft>
        </View>
      )}
      <View style={styles.actions}>
        <Button mode="contained" icon="download-outline" onPress={() => void download()}>
          Download
        </Button>
        {FORMATS[record.format].video !== null && (
          <Button
            mode="outlined"
            icon="play-box-outline"
            onPress={() => router.replace(`/job/${job.id}/made?file=${record.id}`)}
          >
            Open it
          </Button>
        )}
        {record.captions &&
          CAPTION_FORMS.map((form) => (
            <Button
              key={form}
              mode="outlined"
              icon="closed-caption-outline"
              onPress={() =>
                saveFile(captionsFile(record.captions ?? [], form, record.fileName.replace(/\.\w+$/, '')))
              }
            >
              {`Captions .${form}`}
            </Button>
          ))}
        <Button mode="outlined" onPress={() => router.replace(`/job/${job.id}/post`)}>
          Post it
        </Button>
        <Button
          mode="outlined"
          icon="cellphone-arrow-down"
          onPress={() => router.replace(`/job/${job.id}/hand-off?file=${record.id}`)}
        >
          To a phone
        </Button>
        {FORMATS[record.format].video !== null && (
          <Button
            mode="outlined"
            icon="file-question-outline"
            onPress={() => router.replace(`/job/${job.id}/returned?file=${record.id}`)}
          >
            Did it come through?
          </Button>
        )}
        {remove}
      </View>
    </>
  );
}

const styles = StyleSheet.create({
  card: {
    gap: space.s,
    padding: space.m,
    backgroundColor: colours.sheet,
    borderWidth: 1,
    borderLeftWidth: 6,
    borderColor: colours.hairline,
    borderRadius: 6,
  },
  stale: { flexDirection: 'row', gap: space.s, alignItems: 'center' },
  actions: { flexDirection: 'row', flexWrap: 'wrap', gap: space.s },
});
