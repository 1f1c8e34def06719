import { maxKeptFrames } from '@core/job/kept-length';
import { type Candidate, proposals, type Proposal } from '@core/cut/fit-length';
import { masterLengths } from '@core/check/check';
import type { Range } from '@core/cut/cut';
import { activeClip, type Job, findSource } from '@core/job/job';
import { listShots } from '@core/cut/master-shots';
import { toFrame, toSeconds } from '@core/time/frame-rate';
import { usePasses } from '../master';

/** Request for a fit. */
export interface FitWish {
  seconds: number;
  keepFirst: boolean;
  keepLast: boolean;
}

const getPass = (fingerprint: string) => {
  const known = usePasses.getState()[fingerprint];
  return known?.state === 'done' ? known.pass : null;
};

const mean = (values: readonly number[]): number =>
  values.length === 0 ? 0 : values.reduce((sum, value) => sum + value, 0) / values.length;

/** Ways to bring the clip to a length. Empty when it is no longer than that. */
export function proposeFits(job: Job, { seconds, keepFirst, keepLast }: FitWish): Proposal[] {
  const clip = activeClip(job.edit);
  const shots: Candidate[] = [];
  const pauses: Range[] = [];
  for (const range of clip.cut) {
    const source = findSource(job, range.master);
    const pass = getPass(source.fingerprint);
    const second = (frame: number) => Math.floor(toSeconds(frame, source.rate));
    for (const shot of listShots(job.edit.shots, source)) {
      const first = Math.max(range.in, shot.in);
      const out = Math.min(range.out, shot.out);
      if (out <= first) continue;
      const levels = (pass?.sound?.shortTerm ?? []).slice(second(first), second(out) + 1);
      const heard = levels.flatMap((level) => (level === null ? [] : [level]));
      shots.push({
        master: source.id,
        in: first,
        out,
        motion: mean((pass?.motion ?? []).slice(second(first), second(out) + 1)),
        loudness: heard.length === 0 ? null : mean(heard),
      });
    }
    for (const pause of pass?.sound?.pauses ?? []) {
      const span = { in: toFrame(pause.from, source.rate), out: toFrame(pause.to, source.rate) };
      if (span.out > span.in) pauses.push({ master: source.id, ...span });
    }
  }
  const frames = maxKeptFrames(clip, masterLengths(job), seconds);
  return proposals({ shots, frames, keepFirst, keepLast, pauses });
}
