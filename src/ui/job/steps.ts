import { heldBack } from '@core/check/check';
import type { Finding } from '@core/check/finding';
import type { Problem } from '@core/diagnosis/diagnosis';
import { canvasLabel } from '@core/job/canvases';
import { activeCanvas, type Clip } from '@core/job/clip';
import { activeClip, type Job, sourcesIn } from '@core/job/job';
import { shotsOf } from '@core/cut/master-shots';
import { signatureOf } from '@core/job/signature';
import { targetOf } from '@core/outlets/outlets';
import { ratioLabel } from '@core/picture/size';
import { rateLabel, secondsOf } from '@core/time/frame-rate';
import { lengthLabel } from '@core/time/timecode';
import type { Standing } from '../parts/mark';

/** The steps of a job, in order. */
export const STEPS = ['master', 'canvas', 'cut', 'frame', 'check', 'export', 'post'] as const;
export type StepName = (typeof STEPS)[number];

export interface Step {
  name: StepName;
  title: string;
  /** What is settled and what is missing, in a line. */
  summary: string;
  standing: Standing;
}

const count = (number: number, one: string, many: string): string => `${number} ${number === 1 ? one : many}`;

/** Where each step of a job stands. */
export function stepsOf(job: Job, findings: readonly Finding[], problems: readonly Problem[]): Step[] {
  const { edit } = job;
  const clip = activeClip(edit);
  const canvas = activeCanvas(clip);
  const target = targetOf(canvas);
  const length = findings.find((one) => one.rule === 'length');
  const coverage = findings.find((one) => one.rule === 'coverage');
  const kept = length?.values.seconds ?? 0;
  const used = sourcesIn(job).filter(({ id }) => clip.cut.some((range) => range.master === id));
  const whole = used.reduce((sum, { frames, rate }) => sum + secondsOf(frames, rate), 0);
  const shots = used.flatMap((source) => shotsOf(edit.shots, source));
  const framed = shots.filter((shot) => edit.framings.some((one) => one.shot === shot.id)).length;
  const warnings = problems.filter((one) => one.weight === 'warn').length;
  return [
    {
      name: 'master',
      title: 'Master',
      summary:
        `${sourcesIn(job).map(({ picture, rate }) => `${picture.width}×${picture.height}, ${rateLabel(rate)} fps`)[0] ?? ''}` +
        (job.masters.length > 1 ? ` and ${job.masters.length - 1} more` : '') +
        (warnings > 0 ? `, ${count(warnings, 'thing', 'things')} to look at` : ''),
      standing: warnings > 0 ? 'warn' : 'pass',
    },
    {
      name: 'canvas',
      title: 'Canvas',
      summary:
        clip.canvases.length > 1
          ? `${clip.canvases.length} canvases: ${clip.canvases.map(canvasLabel).join(', ')}`
          : `${target.label}, ${canvas.width}×${canvas.height}, ${ratioLabel(canvas)}`,
      standing: 'pass',
    },
    {
      name: 'cut',
      title: 'Length',
      summary: `${lengthLabel(kept)} kept of ${lengthLabel(whole)}`,
      standing: length?.severity ?? 'open',
    },
    {
      name: 'frame',
      title: 'Framing',
      summary: `${framed} of ${count(shots.length, 'shot', 'shots')} framed`,
      standing: coverage?.severity ?? 'open',
    },
    checkStep(findings, clip),
    exportStep(job),
    postStep(job, target.sheet.name),
  ];
}

function checkStep(findings: readonly Finding[], clip: Clip): Step {
  const of = (severity: Finding['severity']) => findings.filter((one) => one.severity === severity).length;
  const stops = heldBack(findings, clip, 'post').length;
  const parts = [
    stops > 0 ? count(stops, 'stop', 'stops') : '',
    of('warn') > 0 ? count(of('warn'), 'warning', 'warnings') : '',
    of('note') > 0 ? count(of('note'), 'note', 'notes') : '',
    `${of('pass')} passed`,
  ];
  const standing = stops > 0 ? 'stop' : of('warn') > 0 ? 'warn' : 'pass';
  return { name: 'check', title: 'Check', summary: parts.filter(Boolean).join(', '), standing };
}

function exportStep({ edit, exports: all }: Job): Step {
  const exports = all.filter((one) => one.clip === activeClip(edit).id);
  const base = { name: 'export', title: 'Export' } as const;
  const current = exports.find((one) => one.signature === signatureOf(edit));
  const done = exports.filter((one) => one.state === 'done').length;
  if (current?.state === 'done') {
    const proved = current.proof?.pass === true;
    return {
      ...base,
      summary: proved ? 'Made and read back' : 'Made, but the read-back found a fault',
      standing: proved ? 'pass' : 'warn',
    };
  }
  if (current?.state === 'running' || current?.state === 'reading-back') {
    return { ...base, summary: 'Under way', standing: 'note' };
  }
  if (current) return { ...base, summary: 'Stopped before it was done', standing: 'warn' };
  return {
    ...base,
    summary: done > 0 ? `${count(done, 'file', 'files')}, none of the clip as it is now` : 'Nothing yet',
    standing: 'open',
  };
}

function postStep({ edit, posts: all }: Job, outlet: string): Step {
  const posts = all.filter((one) => one.clip === activeClip(edit).id);
  const accepted = posts.filter((one) => one.state === 'accepted').length;
  const [latest] = posts;
  if (latest?.state === 'refused')
    return { name: 'post', title: 'Post', summary: 'Refused: see why', standing: 'stop' };
  if (accepted > 0)
    return {
      name: 'post',
      title: 'Post',
      summary: count(accepted, 'post is up', 'posts are up'),
      standing: 'pass',
    };
  return { name: 'post', title: 'Post', summary: `To ${outlet}, not yet`, standing: 'open' };
}

/** The one thing to do next: a step to go to, or a fix that one tap applies. */
export function nextOf(
  job: Job,
  findings: readonly Finding[],
): { label: string; step: StepName; fix?: Finding['fix'] } {
  const [stop] = heldBack(findings, activeClip(job.edit), 'export');
  if (stop?.fix) return { label: stop.fix.label, step: 'check', fix: stop.fix };
  if (stop) return { label: 'See what keeps the export back', step: 'check' };
  const current = job.exports.find((one) => one.signature === signatureOf(job.edit) && one.state === 'done');
  if (!current) return { label: 'Export the clip', step: 'export' };
  const { sheet } = targetOf(current);
  const posted = job.posts.some((one) => one.exportId === current.id && one.state === 'accepted');
  return posted ? { label: 'See the posts', step: 'post' } : { label: `Post to ${sheet.name}`, step: 'post' };
}
