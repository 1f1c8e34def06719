import { useRouter } from 'expo-router';
import { StyleSheet, View } from 'react-native';
import { Button } from 'react-native-paper';
import { planOfJob } from '@core/check/check';
import { type Finding, findingWords, measuredWords, ruleName } from '@core/check/finding';
import { fixCommand, fixLabel } from '@core/check/fixes';
import { plannedFrame } from '@core/render/plan';
import { dispatch } from '@state/job';
import { player } from '@state/player';
import { useClip, useJob } from '../job/job-context';
import { useRuleSheets, useTarget } from '../job/use-target';
import { Mark } from '../parts/mark';
import { Body, Figures, Soft, Strong } from '../parts/words';
import { card, colours, space } from '../theme/tokens';
import { FindingDrawing } from './finding-drawing';
import { OverrideForm } from './override-form';

/** Row of a finding: measured value, limit, where it is, and the ways out. */
export function FindingRow({ finding }: { finding: Finding }) {
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
  const located = frame !== undefined && finding.severity !== 'pass';
  const override = (reason: string | null) =>
    dispatch(job.id, { type: 'set-override', rule: finding.rule, canvas, reason });
  const look = () => {
    const plan = planOfJob(job, sheets);
    const { masterFrame, source } = plannedFrame(plan, Math.min(frame ?? 0, plan.frames - 1));
    player.showFrame(masterFrame, plan.sources[source]?.id);
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
        {!overridden && <FindingDrawing finding={finding} />}
        {stop && !overridden && (
          <Soft>
            {finding.holds === 'export' ? 'Keeps the export and the post back.' : 'Keeps the post back.'}
          </Soft>
        )}
        {(fix !== undefined || located || overridden) && (
          <View style={styles.actions}>
            {fix && !overridden && (
              <Button mode="contained" onPress={() => dispatch(job.id, fixCommand(fix))}>
                {fixLabel(fix)}
              </Button>
            )}
            {located && <Button onPress={look}>See the frame</Button>}
            {overridden && <Button onPress={() => override(null)}>{`Apply “${name}” again`}</Button>}
          </View>
        )}
        {stop && !overridden && <OverrideForm name={name} onOverride={override} />}
      </View>
    </View>
  );
}

const styles = StyleSheet.create({
  row: { flexDirection: 'row', gap: space.m, padding: space.m, ...card },
  stop: { borderColor: colours.madder, backgroundColor: colours.madderWash },
  words: { flex: 1, gap: 2 },
  measured: { fontSize: 13, color: colours.softInk },
  actions: { flexDirection: 'row', flexWrap: 'wrap', gap: space.s, marginTop: space.s },
});
