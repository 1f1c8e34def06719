import { useRouter } from 'expo-router';
import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { Button } from 'react-native-paper';
import { bitsLabel, bytesLabel } from '@core/figures/figures';
import { onClip } from '@core/job/job';
import { type ExportRecord, isOpen } from '@core/job/records';
import {
  cancelExport,
  deleteExport,
  exportedFile,
  type Running,
  startExport,
  useExports,
} from '@state/exports';
import { CAPTION_FORMS } from '@core/words/files/write-captions';
import { captionsFile } from '@state/caption-files';
import { useJob } from '../job/job-context';
import { canvasMark } from '../theme/dyes';
import { Mark } from '../parts/mark';
import { Notice } from '../parts/notice';
import { saveFile } from '../parts/pick-file';
import { StripBar } from '../parts/strip-bar';
import { Soft, Strong } from '../parts/words';
import { colours, space } from '../theme/tokens';
import { ProofTable } from './proof-table';
import { useCanvasLabel } from '../job/use-target';

const STAGES: Record<Running['stage'], string> = {
  waiting: 'Waiting for its turn',
  export: 'Exporting',
  'read-back': 'Reading the file back',
};

function progressWords({ stage, done, total, speed, left }: Running): string {
  if (stage === 'waiting' || speed === null || left === null) return STAGES[stage];
  const seconds = Number.isFinite(left) ? `, about ${Math.ceil(left)} s left` : '';
  return `${STAGES[stage]}: frame ${done} of ${total}, ${speed.toFixed(0)} frames a second${seconds}`;
}

/** One export: how far it is, or what came of it. */
export function ExportCard({ record, stale }: { record: ExportRecord; stale: boolean }) {
  const running = useExports((state) => state.running[record.id]);
  const label = useCanvasLabel()(record);
  const facts = [
    `${record.width}×${record.height}`,
    bitsLabel(record.videoBits),
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
      {running ? (
        <>
          <StripBar
            label={`${STAGES[running.stage]} ${record.fileName}`}
            done={running.done}
            total={running.total}
          />
          <Soft>{progressWords(running)}</Soft>
          <Button style={styles.left} onPress={() => cancelExport(record.id)}>
            Cancel
          </Button>
        </>
      ) : isOpen(record) ? (
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
  const again = () => {
    const made = startExport(onClip(job, record.clip), [record.canvas]);
    if (made.length > 0) void deleteExport(job.id, record.id);
  };
  const download = async () => {
    const file = await exportedFile(record);
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
            <Button mode="contained" onPress={again}>
              Start again
            </Button>
            {remove}
          </>
        }
      >
        {why}
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
  left: { alignSelf: 'flex-start' },
  stale: { flexDirection: 'row', gap: space.s, alignItems: 'center' },
  actions: { flexDirection: 'row', flexWrap: 'wrap', gap: space.s },
});
