import { render } from '@testing-library/react-native';
import { type ReactElement, useLayoutEffect } from 'react';
import { PaperProvider } from 'react-native-paper';
import { CheckBoard } from '@core/check/check-board';
import type { Clip } from '@core/job/clip';
import { activeClip, type Job } from '@core/job/job';
import { SHIPPED_SHEETS } from '@core/outlets/shipped';
import { useChecks } from '@state/check';
import { addJob, NO_JOBS, useJobs } from '@state/job';
import { JobContext } from './job/job-context';
import { createPaperTheme } from './theme/paper-theme';

/** The job of the page under test, as the store has it now, judged as it would be in a worker. */
function OfStore({ id, children }: { id: string; children: ReactElement }) {
  const job = useJobs((state) => state.files[id]?.job);
  useLayoutEffect(() => {
    if (!job) return;
    const cells = new CheckBoard().check(job, { sheets: SHIPPED_SHEETS, passOf: () => null });
    useChecks.setState({ boards: { [id]: cells } });
  }, [id, job]);
  return job ? <JobContext.Provider value={job}>{children}</JobContext.Provider> : null;
}

/** Draws a part of a job's page, on a job that is in the store. */
export function renderPage(job: Job, page: ReactElement) {
  useJobs.setState({ ...NO_JOBS, loaded: true });
  addJob(job);
  return render(
    <PaperProvider theme={createPaperTheme('light')} settings={{ icon: () => null }}>
      <OfStore id={job.id}>{page}</OfStore>
    </PaperProvider>,
  );
}

/** The clip of a job as it is now. */
export function getActiveClip(job: Job): Clip {
  const file = useJobs.getState().files[job.id];
  if (!file) throw new Error('the job is gone');
  return activeClip(file.job.edit);
}
