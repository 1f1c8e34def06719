import { createContext, useContext, useMemo } from 'react';
import { checkJob } from '@core/check/check';
import type { Finding } from '@core/check/finding';
import type { Job } from '@core/job/job';

/** The job that the page is about. */
export const JobContext = createContext<Job | null>(null);

export function useJob(): Job {
  const job = useContext(JobContext);
  if (!job) throw new Error('this component belongs inside a job');
  return job;
}

/** Findings of the job's check, worked out again only when what it looks at changes. */
export function useFindings(): Finding[] {
  const { edit, master } = useJob();
  return useMemo(() => checkJob({ edit, master }), [edit, master]);
}
