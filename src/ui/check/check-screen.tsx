import { useRouter } from 'expo-router';
import { StyleSheet, View } from 'react-native';
import { Button } from 'react-native-paper';
import { heldBack, planOfJob } from '@core/check/check';
import { type Finding, findingWords, measuredWords, ruleName } from '@core/check/finding';
import { fixCommand, fixLabel } from '@core/check/fixes';
import { plannedFrame } from '@core/render/plan';
import { isBusy, useExports } from '@state/exports';
import { dispatch } from '@state/jobs';
import { showFrame } from '@state/player';
import { useSizeTrial } from '@state/size-trials';
import { CanvasRow } from '../frame/canvas-cards';
import { OverrideForm } from './override-form';
import { useClip, useFindings, useJob, useKnown } from '../job/job-context';
import { JobPage } from '../job/job-page';
import { useRuleSheets, useTarget } from '../job/use-target';
import { Mark } from '../parts/mark';
import { Body, Figures, Soft, Strong } from '../parts/words';
import { colours, space, card } from '../theme/tokens';

/** Worst first; findings of one severity keep their order. */
const ORDER: Record<Finding['severity'], number> = { stop: 0, warn: 1, unknown: 2, note: 3, pass: 4 };

/** Every finding: what was measured, the limit, and a fix where there is one. */
export function CheckScreen() {
  const job = useJob();
  const router = useRouter();
  const findings = useFindings(true);
  useSizeTrial(job, useKnown(job.masters), useExports(isBusy));
  const { label } = useTarget();
  const clip = useClip();
  const stopped = heldBack(findings, clip, 'export').length;
  const sorted = [...findings].sort((a, b) => ORDER[a.severity] - ORDER[b.severity]);
  return (
    <JobPage
      title="Check"
      subtitle={`Against the rules of ${label}`}
      tray={
        <Button
          mode="contained"
          disabled={stopped > 0}
          contentStyle={styles.act}
          onPress={() => router.replace(`/job/${job.id}/export`)}
        >
          {stopped > 0 ? 'The export is kept back' : 'Go to the export'}
        </Button>
      }
    >
      <CanvasRow />
      <View role="list" aria-label="Findings" style={styles.list}>
        {sorted.map((finding) => (
          <FindingRow key={finding.rule} finding={finding} />
        ))}
      </View>
    </JobPage>
  );
}

function FindingRow({ finding }: { finding: Finding }) {
  const job = useJob();
  const sheets = useRuleSheets();
  const router = useRouter();
  const target = useTarget();
  const name = ruleName(finding.rule);
  const { fix, frame } = finding;
  const { overrides, canvas } = useClip();
  const overridden =
    overrides.find((override) => override.rule === finding.rule && override.canvas === canvas) ?? null;
  const stop = finding.severity === 'stop';
  const override = (reason: string | null) =>
    dispatch(job.id, { type: 'set-override', rule: finding.rule, canvas, reason });
  const look = () => {
    const plan = planOfJob(job, sheets);
    const { masterFrame, source } = plannedFrame(plan, Math.min(frame ?? 0, plan.frames - 1));
    showFrame(masterFrame, plan.sources[source]?.id);
    router.replace(`/job/${job.id}/frame`);
  };
  return (
    <View
      role="listitem"
      aria-label={`${name}: ${overridden ? 'overridden' : finding.severity}`}
      style={[styles.row, stop && !overridden && styles.stop]}
    >
      <Mark standing={overridden ? 'note' : finding.severity} />
      <View style={styles.words}>
        <Strong>{overridden ? `${name} (overridden)` : name}</Strong>
        <Body>{findingWords(finding, target)}</Body>
        {overridden && <Soft>{`Let pass on this canvas: ${overridden.reason}`}</Soft>}
        <Figures style={styles.measured}>{measuredWords(finding)}</Figures>
        {stop && !overridden && (
          <Soft>
            {finding.holds === 'export' ? 'Keeps the export and the post back.' : 'Keeps the post back.'}
          </Soft>
        )}
        {(fix ?? stop) && (
          <View style={styles.actions}>
            {fix && !overridden && (
              <Button mode="contained" onPress={() => dispatch(job.id, fixCommand(fix))}>
                {fixLabel(fix)}
              </Button>
            )}
            {stop && frame !== undefined && !overridden && <Button onPress={look}>See the frame</Button>}
            {overridden && <Button onPress={() => override(null)}>{`Keep to “${name}” again`}</Button>}
          </View>
        )}
        {stop && !overridden && <OverrideForm name={name} onOverride={override} />}
      </View>
    </View>
  );
}

const styles = StyleSheet.create({
  act: { minHeight: 52 },
  list: { gap: space.s },
  row: {
    flexDirection: 'row',
    gap: space.m,
    padding: space.m,
    ...card,
  },
  stop: { borderColor: colours.madder, backgroundColor: colours.madderWash },
  words: { flex: 1, gap: 2 },
  measured: { fontSize: 13, color: colours.softInk },
  actions: { flexDirection: 'row', flexWrap: 'wrap', gap: space.s, marginTop: space.s },
});
