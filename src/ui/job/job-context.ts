import { createContext, useContext, useMemo } from 'react';
import { useShallow } from 'zustand/react/shallow';
import { checkJob } from '@core/check/check';
import type { Known } from '@core/check/check-input';
import { sizeKey } from '@core/check/size-trial';
import type { Finding } from '@core/check/finding';
import type { PassOf } from '@core/check/look';
import { diagnose, type Problem } from '@core/diagnosis/diagnosis';
import type { Clip } from '@core/job/clip';
import { activeClip, type Job, mainMaster, sourceIn } from '@core/job/job';
import type { Master } from '@core/master/master';
import { NO_REPAIRS } from '@core/master/repairs';
import type { Source } from '@core/master/source';
import { passIn, usePasses } from '@state/passes';
import { usePlayer } from '@state/player';
import { useSheets } from '@state/sheets';
import { useSizeTrials } from '@state/size-trials';

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

/** What the looks at masters found; another only when a look is done, and not while it goes on. */
export function useLooks(masters: readonly Master[]): PassOf {
  const done = usePasses(useShallow((all) => masters.map(({ fingerprint }) => passIn(all[fingerprint]))));
  return useMemo(() => {
    const known = new Map(masters.map(({ fingerprint }, i) => [fingerprint, done[i] ?? null]));
    return (fingerprint) => known.get(fingerprint) ?? null;
  }, [masters, done]);
}

/** What masters of the job are checked with. */
export function useKnown(masters: readonly Master[]): Known {
  const passOf = useLooks(masters);
  const sheets = useSheets((state) => state.sheets);
  return useMemo(() => ({ sheets, passOf }), [sheets, passOf]);
}

/** What the diagnosis says of masters of the job, from what its pass found so far. */
export function useProblems(masters: readonly Master[]): Problem[] {
  const { edit } = useJob();
  const passOf = useLooks(masters);
  return useMemo(() => {
    const canvases = edit.clips.flatMap((clip) => clip.canvases);
    return masters.flatMap((master) => {
      const pass = passOf(master.fingerprint);
      return diagnose({ master, repairs: edit.repairs[master.id] ?? NO_REPAIRS, pass, canvases });
    });
  }, [edit, masters, passOf]);
}

/**
 * Findings of the job's check, worked out again only when what it looks at changes.
 * @param sized whether the file size goes by what was tried: to know which try fits hashes all framings of the clip,
 * which is too dear for each step of a drag.
 */
export function useFindings(sized: boolean): Finding[] {
  const { edit, masters } = useJob();
  const passOf = useLooks(masters);
  const work = useMemo(() => ({ edit, masters }), [edit, masters]);
  const key = useMemo(() => (sized ? sizeKey(work) : ''), [work, sized]);
  const tried = useSizeTrials((all) => all[key] ?? null);
  const sheets = useSheets((state) => state.sheets);
  return useMemo(() => checkJob(work, { sheets, passOf, triedBits: tried }), [work, sheets, passOf, tried]);
}
