import { planOfJob } from '@core/check/check';
import { activeCanvas } from '@core/job/clip';
import { activeClip, type Job } from '@core/job/job';
import type { RenderPlan } from '@core/render/plan';
import { makeCover } from '@media/worker/tasks';
import { sheetsNow } from '../job';

const WHOLE = { x: 0, y: 0, width: 1, height: 1 };

/** A frame of a plan in its own size, as an export draws it. @param frame of the output. @throws TroubleError */
export const planStill = (
  plan: RenderPlan,
  frame: number,
  type: 'image/png' | 'image/jpeg' = 'image/png',
  signal?: AbortSignal,
): Promise<Blob> =>
  makeCover(
    {
      ...{ plan, frame: Math.max(0, Math.min(plan.frames - 1, frame)), crop: WHOLE, type },
      ...{ size: { width: plan.width, height: plan.height }, mostBytes: null },
    },
    { signal },
  );

/** A frame of the canvas that a job works on, as a file. @throws TroubleError */
export async function stillFile(
  job: Job,
  frame: number,
  { form, name }: { form: 'png' | 'jpg'; name: string },
): Promise<File> {
  const type = form === 'png' ? 'image/png' : 'image/jpeg';
  const still = await planStill(planOfJob(job, sheetsNow()), frame, type);
  return new File([still], `${name}_${frame}.${form}`, { type });
}

/** The plan of the canvas that a job works on, with its sharpening and without. */
export function listSharpenedPlans(job: Job): { plain: RenderPlan; sharpened: RenderPlan } {
  const { encoding } = activeCanvas(activeClip(job.edit));
  const plan = planOfJob(job, sheetsNow());
  return {
    plain: { ...plan, sharpening: null },
    sharpened: { ...plan, sharpening: encoding?.sharpening ?? null },
  };
}
