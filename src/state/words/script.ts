import { create } from 'zustand';
import { type Trouble, toTrouble } from '@core/trouble/trouble';
import type { Job } from '@core/job/job';
import { toScriptCues, type ScriptRequest } from '@core/words/script';
import type { Timeline } from '@core/words/spans';
import { layScript as layInWorker } from '@media/worker/tasks';
import { dispatch, useJobs } from '../job';
import { awaitOutcome } from '../task';
import { useWordsBench } from './words-bench';

interface ScriptState {
  /** How many texts of a script were laid on speech; null while none is. */
  progress: { done: number; total: number } | null;
  trouble: Trouble | null;
}

/** A script that is laid on the speech of a clip. */
export const useScript = create<ScriptState>(() => ({ progress: null, trouble: null }));

let stop: AbortController | null = null;

/** Lays a script on speech, one at a time; its cues take the place of those of the clip that is worked on. */
export async function layScriptOnClip(
  { id, edit }: Job,
  request: ScriptRequest,
  timeline: Timeline,
): Promise<void> {
  stopScript();
  const own = (stop = new AbortController());
  useScript.setState({ progress: { done: 0, total: 1 }, trouble: null });
  const outcome = await awaitOutcome(
    {
      run: (signal) =>
        layInWorker(request, {
          onProgress: ({ done, total }) => useScript.setState({ progress: { done, total } }),
          signal,
        }),
      clean: () => Promise.resolve(),
      trouble: (error) => toTrouble(error, 'worker-ended', {}),
    },
    own.signal,
  );
  if (stop !== own) return;
  useScript.setState({ progress: null, trouble: outcome.state === 'failed' ? outcome.trouble : null });
  const cues = outcome.state === 'done' ? toScriptCues(outcome.result, timeline) : [];
  // Whoever turned to another clip meanwhile does not want them there.
  if (cues.length === 0 || useJobs.getState().files[id]?.job.edit.clip !== edit.clip) return;
  dispatch(id, { type: 'set-cues', act: 'script', cues });
  useWordsBench.setState({ cue: cues[0]?.id ?? null, cuePage: null });
}

export function stopScript(): void {
  stop?.abort();
  stop = null;
  useScript.setState({ progress: null });
}
