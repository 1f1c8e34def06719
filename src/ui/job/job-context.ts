import { createContext, useContext, useMemo } from 'react';
import { checkJob } from '@core/check/check';
import type { Finding } from '@core/check/finding';
import type { Clip } from '@core/job/clip';
import { activeClip, type Job, mainMaster, sourceIn } from '@core/job/job';
import type { Source } from '@core/job/source';
import { usePlayer } from '@state/player';

/** The job that the page is about. */
export const JobContext = createContext<Job | null>(null);

export function useJob(): Job {
  const job = useContext(JobContext);
  if (!job) throw new Error('this component belongs inside a job');
  return job;
}

/** The clip being worked on. */
export function useClip(): Clip {
  return activeClip(useJob().edit);
}

/** The master on screen, as repaired. */
export function useSource(): Source {
  const job = useJob();
  const shown = usePlayer((state) => state.master);
  const { edit, masters } = job;
  return useMemo(() => {
    const known = masters.some((one) => one.id === shown);
    return sourceIn({ edit, masters }, known ? shown : mainMaster({ masters }).id);
  }, [edit, masters, shown]);
}

/** Findings of the job's check, worked out again only when what it looks at changes. */
export function useFindings(): Finding[] {
  const { edit, masters } = useJob();
  return useMemo(() => checkJob({ edit, masters }), [edit, masters]);
}
