import { Button } from 'react-native-paper';
import { activeClip } from '@core/job/job';
import { exportNow, stopWaiting, useExports, findWaiting } from '@state/export';
import { runPassAgain, usePasses } from '@state/master';
import { useJob, useLooks } from '../job/job-context';
import { Notice } from '../parts/notice';
import { StripBar } from '../parts/strip-bar';
import { Body } from '../parts/words';

/** While a master of the clip was not looked at: how far that is, and what waits for it. */
export function LookNotice({ canvases }: { canvases: readonly string[] }) {
  const job = useJob();
  const passOf = useLooks(job.masters);
  const passes = usePasses();
  const clip = activeClip(job.edit);
  const waiting = useExports((state) => findWaiting(state, job.id, clip.id));
  const used = new Set(clip.cut.map((range) => range.master));
  const master = job.masters.find(({ id, fingerprint }) => used.has(id) && passOf(fingerprint) === null);
  if (!master) return null;
  const state = passes[master.fingerprint];
  const ended = state?.state === 'stopped' || state?.state === 'failed';
  return (
    <Notice
      standing="unknown"
      title={
        waiting ? 'The export is waiting until the master has been analysed' : 'The master is being analysed'
      }
      actions={
        <>
          {ended && (
            <Button mode="contained" onPress={() => runPassAgain(master)}>
              Analyse it again
            </Button>
          )}
          <Button onPress={() => exportNow(job, waiting?.canvases ?? canvases)}>Export without it</Button>
          {waiting && <Button onPress={() => stopWaiting(job.id, clip.id)}>Do not export</Button>}
        </>
      }
    >
      <Body>
        {ended
          ? `The analysis of ${master.fileName} was not finished, so it is not known whether its bars show in the clip.`
          : 'Once the master has been analysed, it is known whether its bars show in the clip. The export begins then.'}
      </Body>
      {state?.state === 'running' && (
        <StripBar label="Analysing the master" done={state.done} total={state.total} />
      )}
    </Notice>
  );
}
