import { maxKeptFrames } from '@core/job/kept-length';
import { cardFrames } from '@core/words/clip-text';
import { cutFrames, slowestRate } from '@core/cut/cut';
import { masterLengths } from '@core/check/check';
import { type Division, splitCut } from '@core/cut/parts';
import { activeCanvas, type Clip, clipName } from '@core/job/clip';
import { activeClip, type Job, findSource } from '@core/job/job';
import { listShots } from '@core/cut/master-shots';
import { toFrame, toSeconds } from '@core/time/frame-rate';
import { dispatch, setClip } from '../job';
import { usePasses } from '../master';
import { player } from '../player';

/** An id that no clip has, nor an export of a clip that was removed. */
const freshId = (job: Job, clips: readonly Clip[]): string => {
  const taken = new Set([
    ...[...clips, ...job.edit.gone].map((clip) => clip.id),
    ...job.exports.map((record) => record.clip),
  ]);
  for (let n = 1; ; n++) if (!taken.has(`clip-${n}`)) return `clip-${n}`;
};

/** Works on another clip of a job from now on. */
export function chooseClip(job: Job, id: string): void {
  setClip(job.id, id);
  const [range] = job.edit.clips.find((clip) => clip.id === id)?.cut ?? [];
  if (range) player.showFrame(range.in, range.master);
}

/** Adds a clip that begins as a copy of the one being worked on. */
export function addClip(job: Job): void {
  const { clips } = job.edit;
  const from = activeClip(job.edit);
  const id = freshId(job, clips);
  const name = `Clip ${clips.length + 1}`;
  const clip: Clip = { ...from, id, name, part: null, overrides: [], words: { ...from.words, title: name } };
  dispatch(job.id, { type: 'set-clips', act: 'add', clips: [...clips, clip], clip: id });
}

/** Removes a clip; the last one stays. Its exports stay in the job until they are deleted. */
export function removeClip(job: Job, id: string): void {
  const clips = job.edit.clips.filter((clip) => clip.id !== id);
  const [first] = clips;
  if (!first) return;
  const clip = job.edit.clip === id ? first.id : job.edit.clip;
  dispatch(job.id, { type: 'set-clips', act: 'remove', clips, clip });
}

export function renameClip(job: Job, id: string, name: string): void {
  const clips = job.edit.clips.map((clip) => (clip.id === id ? { ...clip, name } : clip));
  dispatch(job.id, { type: 'set-clips', act: 'rename', clips, clip: job.edit.clip });
}

/** Where a clip's cut may be divided: at shots and in pauses, in frames of its playing order. */
export function proposeDivisions(job: Job): Division[] {
  const clip = activeClip(job.edit);
  const out: Division[] = [];
  let start = 0;
  for (const range of clip.cut) {
    const source = findSource(job, range.master);
    const addDivision = (frame: number, kind: Division['kind']) => {
      if (frame > range.in && frame < range.out) out.push({ frame: start + frame - range.in, kind });
    };
    for (const shot of listShots(job.edit.shots, source)) addDivision(shot.in, 'shot');
    const pass = usePasses.getState()[source.fingerprint];
    const pauses = pass?.state === 'done' ? (pass.pass.sound?.pauses ?? []) : [];
    for (const { from, to } of pauses) addDivision(toFrame((from + to) / 2, source.rate), 'pause');
    start += range.out - range.in;
    if (start > 0) out.push({ frame: start, kind: 'shot' });
  }
  return out.sort((a, b) => a.frame - b.frame);
}

/**
 * Splits the clip being worked on into parts of at most `seconds`, each a clip of its own.
 * @returns how many parts there are; 1 when it fits already.
 * @throws RangeError when the overlap is too long.
 */
export function splitIntoParts(job: Job, seconds: number, overlapSeconds: number): number {
  const whole = activeClip(job.edit);
  const rate = slowestRate(whole.cut, masterLengths(job));
  const cuts = splitCut(whole.cut, {
    most: maxKeptFrames(whole, masterLengths(job), seconds),
    overlap: toFrame(overlapSeconds, rate),
    divisions: proposeDivisions(job),
  });
  if (cuts.length === 1) return 1;
  const clips = [...job.edit.clips];
  const made = cuts.map((cut, i): Clip => {
    const part = { number: i + 1, of: cuts.length };
    const title = clipName({ name: whole.words.title, part });
    const clip = { ...whole, id: freshId(job, clips), cut, part, words: { ...whole.words, title } };
    clips.push(clip);
    return clip;
  });
  const [first] = made;
  if (first) dispatch(job.id, { type: 'set-clips', act: 'parts', clips, clip: first.id });
  return made.length;
}

/** Seconds that a clip lasts, its end card among them. */
export function clipSeconds(job: Job, clip: Clip): number {
  const { rate } = activeCanvas(clip);
  return toSeconds(cutFrames(clip.cut, masterLengths(job), rate) + cardFrames(clip.text?.card, rate), rate);
}
