import { useRouter } from 'expo-router';
import { StyleSheet, View } from 'react-native';
import { Button } from 'react-native-paper';
import { heldBack, workedOutBitRate } from '@core/check/check';
import { ownCell } from '@core/check/check-board';
import { isCurrent } from '@core/check/post-check';
import { findingWords, ruleName } from '@core/check/finding';
import { bitRateWords } from '@core/rate/bit-rate-words';
import { bytesLabel } from '@core/figures/figures';
import { activeCanvas } from '@core/job/clip';
import { LEAST_VIDEO_BITS, MOST_VIDEO_BITS } from '@core/rate/bit-rate';
import { isBusy, startExport, useExports, waitingOf } from '@state/exports';
import { dispatch } from '@state/jobs';
import { useSizeTrial } from '@state/size-trials';
import { CanvasRow } from '../frame/canvas-cards';
import { JobPage } from '../job/job-page';
import { useBoard, useClip, useFindings, useJob, useKnown } from '../job/job-context';
import { useTarget } from '../job/use-target';
import { NumberField } from '../parts/number-field';
import { Notice } from '../parts/notice';
import { Body, Heading, Soft } from '../parts/words';
import { card, space } from '../theme/tokens';
import { SeeWhole } from '../whole/see-whole';
import { ExportCard } from './export-card';
import { LookNotice } from './look-notice';

/** Where the size that is told comes from. */
const SIZE_FROM = {
  tried: 'Measured by encoding pieces of this clip',
  trying: 'From bit rate and length; being measured now',
  reckoned: 'From bit rate and length',
};

/** Makes the file: bit rate, progress, and the proof of what was made. */
export function ExportScreen() {
  const job = useJob();
  const router = useRouter();
  const target = useTarget();
  const cells = useBoard();
  const findings = useFindings();
  const known = useKnown(job.masters);
  const { id, edit } = job;
  const clip = useClip();
  const trying = useSizeTrial(job, known, useExports(isBusy));
  const waits = useExports((state) => waitingOf(state, id, clip.id) !== null);
  const canvas = activeCanvas(clip);
  const records = job.exports.filter(
    // Those of a removed clip stay in reach, to be saved or deleted.
    (record) => record.clip === clip.id || !edit.clips.some((other) => other.id === record.clip),
  );
  const several = clip.canvases.length > 1;
  const choice = workedOutBitRate(job, known.sheets);
  const stops = heldBack(findings ?? [], clip, 'export');
  const size = findings?.find((finding) => finding.rule === 'file-size');
  const free = clip.canvases.filter(({ id }) => {
    const cell = ownCell(cells, clip, id);
    return cell && heldBack(cell.findings, { ...clip, canvas: id }, 'export').length === 0;
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
            onPress={() => startExport(job, [canvas.id])}
          >
            {several ? 'Export this canvas' : 'Export to MP4'}
          </Button>
          {several && (
            <Button
              mode="contained"
              disabled={free.length === 0 || waits}
              contentStyle={styles.act}
              onPress={() =>
                startExport(
                  job,
                  free.map((canvas) => canvas.id),
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
      <View style={styles.settings}>
        <Heading>Bit rate</Heading>
        <View style={styles.row}>
          <NumberField
            label="Video bit rate"
            unit={`${LEAST_VIDEO_BITS / 1e6} to ${MOST_VIDEO_BITS / 1e6} Mb/s`}
            value={((clip.videoBits ?? choice.bits) / 1e6).toFixed(1)}
            least={LEAST_VIDEO_BITS / 1e6}
            most={MOST_VIDEO_BITS / 1e6}
            onTake={(rate) => dispatch(id, { type: 'set-video-bits', bits: Math.round(rate * 1e6) })}
          />
          <View style={styles.estimate} aria-label="Estimated file">
            <Soft>Estimated file</Soft>
            <Body>{`${size?.values.tried ? 'About' : 'Up to'} ${bytesLabel(size?.values.bytes ?? 0)}`}</Body>
            <Soft style={styles.from}>
              {SIZE_FROM[size?.values.tried ? 'tried' : trying ? 'trying' : 'reckoned']}
            </Soft>
          </View>
        </View>
        <Soft>
          {clip.videoBits === null ? 'Calculated: ' : 'Set by you. The calculated rate is '}
          {bitRateWords(choice)} H.264 High with AAC sound.
        </Soft>
        {clip.videoBits !== null && (
          <Button onPress={() => dispatch(id, { type: 'set-video-bits', bits: null })}>
            Use the calculated rate
          </Button>
        )}
      </View>
      <View role="list" aria-label="Exports" style={styles.list}>
        {records.map((record) => (
          <ExportCard key={record.id} record={record} stale={!isCurrent(job, record)} />
        ))}
      </View>
      {records.length === 0 && (
        <Soft>Nothing has been exported yet. The export goes on while you use other pages.</Soft>
      )}
    </JobPage>
  );
}

const styles = StyleSheet.create({
  act: { minHeight: 52 },
  settings: {
    gap: space.s,
    padding: space.m,
    ...card,
    alignItems: 'flex-start',
  },
  row: { flexDirection: 'row', gap: space.l, alignSelf: 'stretch' },
  estimate: { flex: 1 },
  // Two lines, so that nothing moves from under the finger when the size is known better.
  from: { minHeight: 36 },
  list: { gap: space.m },
});
