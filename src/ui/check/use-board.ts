import { useEffect } from 'react';
import type { BoardCell } from '@core/check/check-board';
import { checkWork, useChecks } from '@state/checks';
import { useJob, useKnown } from '../job/job-context';

/** The job is judged when nothing was changed for this long, in milliseconds. */
const CALM = 120;

const NONE: BoardCell[] = [];

/** How every clip on every canvas of the job is judged; worked out in a worker whenever what it looks at changes. */
export function useBoard(): BoardCell[] {
  const job = useJob();
  const known = useKnown(job.masters);
  const { edit } = job;
  useEffect(() => {
    const timer = setTimeout(() => checkWork(job), CALM);
    return () => clearTimeout(timer);
    // What the job shows counts, not its records.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [edit, known]);
  return useChecks(({ boards }) => boards[job.id]) ?? NONE;
}
