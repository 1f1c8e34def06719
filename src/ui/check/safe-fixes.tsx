import { useEffect, useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { Button } from 'react-native-paper';
import type { FixStep } from '@core/check/fix-all';
import { ruleName } from '@core/check/finding';
import type { Edit, Job } from '@core/job/job';
import type { Trouble } from '@core/trouble/trouble';
import { checkTrouble, safeFixesNow } from '@state/check';
import { dispatch } from '@state/job';
import { useBoard, useJob } from '../job/job-context';
import { Notice, TroubleNotice } from '../parts/notice';
import { Body, Soft } from '../parts/words';
import { space } from '../theme/tokens';

/** The safe fixes of a job as it is now, while they are asked for; without steps while they are looked for. */
function useSafeFixes(job: Job, asked: boolean): { steps: FixStep[] | null } | { trouble: Trouble } {
  const [found, setFound] = useState<{ steps: FixStep[]; edit: Edit } | { trouble: Trouble } | null>(null);
  const { edit } = job;
  useEffect(() => {
    if (!asked) return;
    const stop = new AbortController();
    safeFixesNow(job, stop.signal)
      .then((steps) => setFound({ steps, edit }))
      .catch((error: unknown) => {
        if (!stop.signal.aborted) setFound({ trouble: checkTrouble(error) });
      });
    return () => stop.abort();
    // What the job shows counts, not its records.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [asked, edit]);
  if (!found) return { steps: null };
  return 'trouble' in found ? found : { steps: found.edit === edit ? found.steps : null };
}

/** Every fix that takes nothing away, over all clips: listed first, then applied as one step. */
export function SafeFixes() {
  const job = useJob();
  const cells = useBoard();
  const [asked, setAsked] = useState(false);
  const [done, setDone] = useState<string[]>([]);
  const found = useSafeFixes(job, asked);
  const there = cells.some(({ findings }) =>
    findings.some(({ severity, fix }) => fix !== undefined && ['stop', 'warn'].includes(severity)),
  );
  const apply = (steps: readonly FixStep[], lines: string[]) => {
    dispatch(job.id, { type: 'together', act: 'fixes', steps: [...steps] });
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
  if ('trouble' in found)
    return (
      <TroubleNotice
        trouble={found.trouble}
        actions={<Button onPress={() => setAsked(false)}>Close</Button>}
      />
    );
  if (!found.steps) return <Soft role="status">Looking for fixes that take nothing away…</Soft>;
  const { steps } = found;
  const lines = steps.map(
    ({ clipName, label, rule, does }) => `${clipName}, ${label}, ${ruleName(rule)}: ${does}`,
  );
  return (
    <Notice
      standing="note"
      title={
        steps.length === 0
          ? 'No fix can be applied without your decision: each would take something away.'
          : `${steps.length} safe ${steps.length === 1 ? 'fix' : 'fixes'}, as one step:`
      }
      actions={
        <>
          {steps.length > 0 && (
            <Button mode="contained" onPress={() => apply(steps, lines)}>
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
