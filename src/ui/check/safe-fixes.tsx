import { useMemo, useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { Button } from 'react-native-paper';
import { safeFixes } from '@core/check/fix-all';
import { ruleName } from '@core/check/finding';
import { dispatch } from '@state/jobs';
import { useJob, useKnown } from '../job/job-context';
import { Notice } from '../parts/notice';
import { Body } from '../parts/words';
import { space } from '../theme/tokens';
import { useBoard } from './use-board';

/** Every fix that takes nothing away, over all clips: listed first, then applied as one step. */
export function SafeFixes() {
  const job = useJob();
  const known = useKnown(job.masters);
  const cells = useBoard();
  const [asked, setAsked] = useState(false);
  const [done, setDone] = useState<string[]>([]);
  const { masters, edit } = job;
  const steps = useMemo(
    () => (asked ? safeFixes({ masters, edit }, known) : []),
    [asked, masters, edit, known],
  );
  const there = cells.some(({ findings }) =>
    findings.some(({ severity, fix }) => fix !== undefined && ['stop', 'warn'].includes(severity)),
  );
  const lines = steps.map(
    ({ clipName, label, rule, does }) => `${clipName}, ${label}, ${ruleName(rule)}: ${does}`,
  );
  const apply = () => {
    dispatch(job.id, { type: 'together', act: 'fixes', steps });
    setDone(lines);
    setAsked(false);
  };
  if (done.length > 0)
    return (
      <Notice
        standing="pass"
        title={`${done.length} ${done.length === 1 ? 'fix was' : 'fixes were'} applied. Undo takes them back together.`}
        actions={<Button onPress={() => setDone([])}>Close</Button>}
      >
        <Lines lines={done} />
      </Notice>
    );
  if (!asked)
    return there ? (
      <Button mode="outlined" icon="auto-fix" onPress={() => setAsked(true)}>
        Safe fixes for all clips
      </Button>
    ) : null;
  return (
    <Notice
      standing="note"
      title={
        steps.length === 0
          ? 'No fix is safe to apply without you: each would take something away.'
          : `${steps.length} safe ${steps.length === 1 ? 'fix' : 'fixes'}, as one step:`
      }
      actions={
        <>
          {steps.length > 0 && (
            <Button mode="contained" onPress={apply}>
              Apply them
            </Button>
          )}
          <Button onPress={() => setAsked(false)}>Not now</Button>
        </>
      }
    >
      <Lines lines={lines} />
    </Notice>
  );
}

function Lines({ lines }: { lines: readonly string[] }) {
  return (
    <View style={styles.lines}>
      {lines.map((line, i) => (
        <Body key={`${i} ${line}`}>{line}</Body>
      ))}
    </View>
  );
}

const styles = StyleSheet.create({ lines: { gap: space.xs } });
