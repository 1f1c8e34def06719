import { exportToPost, postStops } from '@core/check/post-check';
import { type Job, onCanvas, onClip } from '@core/job/job';
import { isPosted, type PostRecord } from '@core/job/records';
import type { Sheets } from '@core/outlets/rule-sheet';
import { useSendings } from '@state/posting';
import { useJob } from '../job/job-context';
import { useRuleSheets } from '../job/use-target';
import type { Standing } from '../parts/mark';

/** How the post of a canvas stands, in a word or two. */
export interface CellStand {
  standing: Standing;
  words: string;
}

const STATES: Record<Exclude<PostRecord['state'], 'up' | 'accepted'>, CellStand> = {
  waiting: { standing: 'open', words: 'waits' },
  sending: { standing: 'open', words: 'sending' },
  processing: { standing: 'open', words: 'processing' },
  refused: { standing: 'stop', words: 'refused' },
  failed: { standing: 'stop', words: 'failed' },
  held: { standing: 'stop', words: 'needs you' },
  missed: { standing: 'stop', words: 'missed' },
  down: { standing: 'open', words: 'taken down' },
};

/** Posts of a canvas of the clip that is worked on, the newest first. */
export const listPosts = (job: Job, canvas: string): PostRecord[] => {
  const exports = new Set(job.exports.filter((made) => made.canvas === canvas).map(({ id }) => id));
  return job.posts.filter(({ clip, exportId }) => clip === job.edit.clip && exports.has(exportId));
};

function toStand(job: Job, canvas: string, sheets: Sheets, isSending: boolean): CellStand {
  if (isSending) return STATES.sending;
  const [last] = listPosts(job, canvas);
  if (last)
    return isPosted(last) ? { standing: 'pass', words: 'up' } : STATES[last.state as keyof typeof STATES];
  const ready = exportToPost(onCanvas(job, canvas), sheets);
  if (!ready) return { standing: 'open', words: 'no file' };
  return postStops(job, ready, sheets).length > 0
    ? { standing: 'stop', words: 'held back' }
    : { standing: 'pass', words: 'ready' };
}

/** How the post of a canvas of some clip stands. */
export function usePostStand(clip: string, canvas: string): CellStand {
  const job = onClip(useJob(), clip);
  const sheets = useRuleSheets();
  const sending = useSendings((state) => state.sending);
  const isSending = job.exports.some((made) => made.canvas === canvas && made.id in sending);
  return toStand(job, canvas, sheets, isSending);
}
