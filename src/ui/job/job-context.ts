import { createContext, useContext, useMemo } from 'react';
import { checkJob } from '@core/check/check';
import type { Finding } from '@core/check/finding';
import { diagnose, type Problem } from '@core/diagnosis/diagnosis';
import type { Clip } from '@core/job/clip';
import { activeClip, type Job, mainMaster, sourceIn } from '@core/job/job';
import type { Master } from '@core/master/master';
import { NO_REPAIRS } from '@core/master/repairs';
import type { Source } from '@core/master/source';
import { usePasses } from '@state/passes';
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
    const known = masters.some((master) => master.id === shown);
    return sourceIn({ edit, masters }, known ? shown : mainMaster({ masters }).id);
  }, [edit, masters, shown]);
}

/** What the diagnosis says of masters of the job, from what its pass found so far. */
export function useProblems(masters: readonly Master[]): Problem[] {
  const { edit } = useJob();
  const passes = usePasses();
  return useMemo(() => {
    const canvases = edit.clips.flatMap((clip) => clip.canvases);
    return masters.flatMap((master) => {
      const known = passes[master.fingerprint];
      const pass = known?.state === 'done' ? known.pass : null;
      return diagnose({ master, repairs: edit.repairs[master.id] ?? NO_REPAIRS, pass, canvases });
    });
  }, [edit, masters, passes]);
}

/** Findings of the job's check, worked out again only when what it looks at changes. */
export function useFindings(): Finding[] {
  const { edit, masters } = useJob();
  return useMemo(() => checkJob({ edit, masters }), [edit, masters]);
}
