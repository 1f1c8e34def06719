import { createContext, useContext, useEffect, useMemo } from 'react';
import { useShallow } from 'zustand/react/shallow';
import { type BoardCell, ownCell } from '@core/check/check-board';
import type { CheckContext } from '@core/check/check-input';
import type { Finding } from '@core/check/finding';
import { createBitrateAdvisor } from '@core/trial/bitrate-advisor';
import type { AnalysisLookup } from '@core/check/master-analysis';
import { diagnoseMaster, type Problem } from '@core/diagnosis/diagnosis';
import type { Clip } from '@core/job/clip';
import { activeClip, type Job, mainMaster, findSource } from '@core/job/job';
import type { Master } from '@core/master/master';
import { NO_REPAIRS } from '@core/master/repairs';
import type { Source } from '@core/master/source';
import { checkWork, useChecks } from '@state/check';
import { selectPass, usePasses } from '@state/master';
import { usePlayer } from '@state/player';
import { useSheets } from '@state/job';
import { useSizeTrials, useRateTrials } from '@state/export';

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
    return findSource({ edit, masters }, known ? shown : mainMaster({ masters }).id);
  }, [edit, masters, shown]);
}

/** Reads the analyses of masters; the value changes only when one is done, and not while it goes on. */
export function useLooks(masters: readonly Master[]): AnalysisLookup {
  const done = usePasses(useShallow((all) => masters.map(({ fingerprint }) => selectPass(all[fingerprint]))));
  return useMemo(() => {
    const known = new Map<string, (typeof done)[number]>(
      masters.map(({ fingerprint }, i) => [fingerprint, done[i] ?? null]),
    );
    return (fingerprint) => known.get(fingerprint) ?? null;
  }, [masters, done]);
}

/** Reads the context that masters of the job are checked with. */
export function useCheckContext(masters: readonly Master[]): CheckContext {
  const passOf = useLooks(masters);
  const sheets = useSheets((state) => state.sheets);
  const trials = useRateTrials((state) => state.found);
  return useMemo(
    () => ({ sheets, passOf, advisedOf: createBitrateAdvisor(Object.values(trials), sheets) }),
    [sheets, passOf, trials],
  );
}

/** Reads the diagnosis of masters of the job, from what their analyses found so far. */
export function useProblems(masters: readonly Master[]): Problem[] {
  const { edit } = useJob();
  const passOf = useLooks(masters);
  return useMemo(() => {
    const canvases = edit.clips.flatMap((clip) => clip.canvases);
    return masters.flatMap((master) => {
      const pass = passOf(master.fingerprint);
      return diagnoseMaster({ master, repairs: edit.repairs[master.id] ?? NO_REPAIRS, pass, canvases });
    });
  }, [edit, masters, passOf]);
}

/** The job is judged when nothing was changed for this long, in milliseconds. */
const CALM = 120;

/** Has the job judged in a worker whenever what its check looks at changes. */
export function useJudging(job: Job): void {
  const known = useCheckContext(job.masters);
  const sizes = useSizeTrials();
  const { edit } = job;
  useEffect(() => {
    const timer = setTimeout(() => checkWork(job), CALM);
    return () => clearTimeout(timer);
    // What the job shows counts, not its records.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [edit, known, sizes]);
}

const NONE: BoardCell[] = [];

/** How every clip on every canvas of the job was last judged, a moment after its last change. */
export function useBoard(): BoardCell[] {
  const { id } = useJob();
  return useChecks(({ boards }) => boards[id]) ?? NONE;
}

/** Reads the findings of the canvas that is worked on; null before it was judged for the first time. */
export function useFindings(): Finding[] | null {
  const cells = useBoard();
  const clip = useClip();
  return ownCell(cells, clip, clip.canvas)?.findings ?? null;
}
