import { useRouter, useLocalSearchParams } from 'expo-router';
import { useEffect } from 'react';
import { StyleSheet, View } from 'react-native';
import { Button } from 'react-native-paper';
import { listBlockingFindings } from '@core/check/check';
import { isExporting, useExportQueue, useSizeTrial } from '@state/export';
import { setCanvas, setClip } from '@state/job';
import { jobReport } from '@state/check';
import { CanvasRow } from '../frame/canvas-cards';
import { useClip, useFindings, useJob, useCheckContext } from '../job/job-context';
import { JobPage } from '../job/job-page';
import { CheckGrid } from './check-grid';
import { FindingRow } from './finding-row';
import { JudgedNotice } from './judged-notice';
import { ReportButtons } from './report-buttons';
import { SafeFixes } from './safe-fixes';
import { useTarget } from '../job/use-target';
import { SeeWhole } from '../whole/see-whole';
import { useSteadyOrder } from './use-steady-order';
import { Soft } from '../parts/words';
import { space } from '../theme/tokens';

/** Every finding: what was measured, the limit, and a fix where there is one. */
export function CheckScreen() {
  const job = useJob();
  const router = useRouter();
  useAskedFor();
  const findings = useFindings();
  useSizeTrial(job, useCheckContext(job.masters), useExportQueue(isExporting));
  const { label } = useTarget();
  const clip = useClip();
  const stopped = listBlockingFindings(findings ?? [], clip, 'export').length;
  const sorted = useSteadyOrder(findings, `${clip.id} ${clip.canvas}`);
  return (
    <JobPage
      title="Check"
      subtitle={`Against the rules of ${label}`}
      tray={
        <Button
          mode="contained"
          disabled={!findings || stopped > 0}
          contentStyle={styles.act}
          onPress={() => router.replace(`/job/${job.id}/export`)}
        >
          {stopped > 0 ? 'The export is kept back' : 'Go to the export'}
        </Button>
      }
    >
      <JudgedNotice />
      <CheckGrid />
      <SafeFixes />
      <CanvasRow />
      <SeeWhole from="check" />
      {!findings && <Soft role="status">Being checked…</Soft>}
      <View role="list" aria-label="Findings" style={styles.list}>
        {sorted.map((finding) => (
          <FindingRow key={finding.rule} finding={finding} />
        ))}
      </View>
      <ReportButtons
        about="Every finding of every clip, with what was let pass and why."
        make={(kind) => jobReport(job, kind)}
      />
    </JobPage>
  );
}

/** Works on the canvas that the page's address asks for, once. */
function useAskedFor(): void {
  const { id } = useJob();
  const { clip, canvas } = useLocalSearchParams<{ clip?: string; canvas?: string }>();
  useEffect(() => {
    if (clip !== undefined) setClip(id, clip);
    if (canvas !== undefined) setCanvas(id, canvas);
  }, [id, clip, canvas]);
}

const styles = StyleSheet.create({
  act: { minHeight: 52 },
  list: { gap: space.s },
});
