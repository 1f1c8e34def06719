import { useRouter } from 'expo-router';
import { StyleSheet, View } from 'react-native';
import { Button } from 'react-native-paper';
import { listBlockingFindings, toJobEncodeSettings } from '@core/check/check';
import { ownCell } from '@core/check/check-board';
import { isCurrent } from '@core/check/post-check';
import { findingWords, ruleName } from '@core/check/finding';
import { activeCanvas } from '@core/job/clip';
import { type Format, FORMATS } from '@core/rate/format';
import {
  isExporting,
  useExportQueue,
  startExport,
  useExports,
  findWaiting,
  useSizeTrial,
} from '@state/export';
import { CanvasRow } from '../frame/canvas-cards';
import { JobPage } from '../job/job-page';
import { useBoard, useClip, useFindings, useJob, useCheckContext } from '../job/job-context';
import { useTarget } from '../job/use-target';
import { Notice } from '../parts/notice';
import { Soft } from '../parts/words';
import { useSinglePress } from '../parts/use-single-press';
import { space } from '../theme/tokens';
import { SeeWhole } from '../whole/see-whole';
import { EncodingCard } from './encoding-card';
import { ExportCard } from './export-card';
import { LookNotice } from './look-notice';
import { Queue } from './queue';
import { SaveAll } from './save-all';

const exportWords = ({ video, name }: Format): string =>
  video === null ? 'Export the sound' : `Export to ${name.split(',')[0]}`;

/** Makes the file: how, in what order, and the proof of what was made. */
export function ExportScreen() {
  const job = useJob();
  const router = useRouter();
  const target = useTarget();
  const cells = useBoard();
  const findings = useFindings();
  const known = useCheckContext(job.masters);
  const { id, edit } = job;
  const clip = useClip();
  const trying = useSizeTrial(job, known, useExportQueue(isExporting));
  const waits = useExports((state) => findWaiting(state, id, clip.id) !== null);
  const canvas = activeCanvas(clip);
  const press = useSinglePress();
  const inQueue = useExportQueue((state) => state.running);
  const records = job.exports.filter(
    // Those of a removed clip stay in reach, to be saved or deleted.
    (record) =>
      !inQueue[record.id] &&
      record.state !== 'paused' &&
      (record.clip === clip.id || !edit.clips.some((other) => other.id === record.clip)),
  );
  const several = clip.canvases.length > 1;
  const format = FORMATS[toJobEncodeSettings(job, known).format];
  const stops = listBlockingFindings(findings ?? [], clip, 'export');
  const size = findings?.find((finding) => finding.rule === 'file-size');
  const free = clip.canvases.filter(({ id }) => {
    const cell = ownCell(cells, clip, id);
    return cell && listBlockingFindings(cell.findings, { ...clip, canvas: id }, 'export').length === 0;
  });
  return (
    <JobPage
      title="Export"
      subtitle={`${target.label}, ${canvas.width}×${canvas.height}`}
      tray={
        <>
          <Button
            mode={several ? 'outlined' : 'contained'}
            disabled={!findings || stops.length > 0 || waits}
            contentStyle={styles.act}
            onPress={() => press(() => startExport(job, [canvas.id]))}
          >
            {several ? 'Export this canvas' : exportWords(format)}
          </Button>
          {several && (
            <Button
              mode="contained"
              disabled={free.length === 0 || waits}
              contentStyle={styles.act}
              onPress={() =>
                press(() =>
                  startExport(
                    job,
                    free.map((canvas) => canvas.id),
                  ),
                )
              }
            >
              {free.length === clip.canvases.length
                ? `Export all ${free.length} in one go`
                : `Export ${free.length} of ${clip.canvases.length} in one go`}
            </Button>
          )}
        </>
      }
    >
      <CanvasRow />
      <SeeWhole from="export" />
      <LookNotice canvases={[canvas.id]} />
      {stops.map((finding) => (
        <Notice
          key={finding.rule}
          standing="stop"
          title={`Kept back: ${ruleName(finding.rule)}`}
          actions={<Button onPress={() => router.replace(`/job/${id}/check`)}>Go to the check</Button>}
        >
          {findingWords(finding, target)}
        </Notice>
      ))}
      <Queue />
      <SaveAll records={records} />
      <View role="list" aria-label="Exports" style={styles.list}>
        {records.map((record) => (
          <ExportCard key={record.id} record={record} stale={!isCurrent(job, record)} />
        ))}
      </View>
      {records.length === 0 && !isExporting({ running: inQueue }) && (
        <Soft>Nothing has been exported yet. The export goes on while you use other pages.</Soft>
      )}
      <EncodingCard size={size} trying={trying} />
    </JobPage>
  );
}

const styles = StyleSheet.create({
  act: { minHeight: 52 },
  list: { gap: space.m },
});
