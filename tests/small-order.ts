import { toJobEncodeSettings, planOfJob } from '../src/core/check/check';
import { activeClip, type Job } from '../src/core/job/job';
import { SHIPPED_SHEETS } from '../src/core/outlets/shipped';
import type { Size } from '../src/core/picture/size';
import { type Encoding, PLAIN_ENCODING } from '../src/core/rate/encoding';
import type { RenderOrder } from '../server/render/order';
import { jobOf } from './create-job';

/** A job of a film on a small canvas, whose file is made in some way. */
export async function smallJob(
  film: string,
  change: Partial<Encoding> = {},
  size: Size = { width: 180, height: 320 },
): Promise<Job> {
  const job = await jobOf(film);
  const clip = activeClip(job.edit);
  const encoding = { ...PLAIN_ENCODING, ...change };
  const canvases = clip.canvases.map((canvas) => ({ ...canvas, ...size, placement: null, encoding }));
  return { ...job, edit: { ...job.edit, clips: [{ ...clip, canvases }] } };
}

/** Makes the render request for that order. */
export async function smallOrder(
  film: string,
  change: Partial<Encoding> = {},
  size?: Size,
): Promise<RenderOrder> {
  return orderOfJob(await smallJob(film, change, size), film);
}

/** Makes the render order of a job with one film. */
export function orderOfJob(job: Job, film: string): RenderOrder {
  return {
    plan: planOfJob(job, SHIPPED_SHEETS),
    making: toJobEncodeSettings(job, { sheets: SHIPPED_SHEETS }),
    masters: { [job.masters[0]!.fingerprint]: film },
  };
}
