import { findAdvisedBitrate, toJobEncodeSettings, planOfJob } from '@core/check/check';
import { activeCanvas } from '@core/job/clip';
import { activeClip, type Job } from '@core/job/job';
import { renderMark, type RenderRequest } from '@core/job/render-service';
import { type Encoding, PLAIN_ENCODING } from '@core/rate/encoding';
import type { ExportOrder } from './export-orders';
import { createCurrentAdvisor } from './found-trials';
import { sheetsNow } from '../job';

/** Who makes the file of the canvas that a job is working on. */
export const chooseMaker = (work: Job): Encoding['maker'] =>
  (activeCanvas(activeClip(work.edit)).encoding ?? PLAIN_ENCODING).maker;

/** Makes the export order of the canvas that a job is working on. */
export function toOrder(work: Job): ExportOrder {
  const order = {
    plan: planOfJob(work, sheetsNow()),
    making: toJobEncodeSettings(work, { sheets: sheetsNow(), advisedOf: createCurrentAdvisor() }),
  };
  if (chooseMaker(work) === 'browser') return order;
  return { ...order, remote: { request: toRenderRequest(work, order), id: null } };
}

/** Makes the request to the server for that. */
export function toRenderRequest(
  work: Job,
  { plan, making }: Pick<ExportOrder, 'plan' | 'making'>,
): RenderRequest {
  const { exports: _exports, posts: _posts, ...job } = work;
  const clip = activeClip(work.edit);
  const sheets = [...sheetsNow()];
  return {
    ...{ job, clip: clip.id, canvas: activeCanvas(clip).id, sheets },
    mark: renderMark(plan, making),
    advised: findAdvisedBitrate(work, { sheets, advisedOf: createCurrentAdvisor() }),
  };
}
