import { MAX_FRAMES } from '../../src/core/figures/bounded';
import { toJobEncodeSettings, planOfJob } from '../../src/core/check/check';
import { createRequestedJob, renderMark, type RenderRequest } from '../../src/core/job/render-service';
import type { RenderOrder } from '../render/order';

/** Why a file is not begun. */
export type RenderRefusal = 'master-missing' | 'other-version' | 'no-canvas' | 'font-missing' | 'too-long';

/** A request for a file, resolved as far as that goes without the files that it needs: what is made, and how. */
export type ResolvedRequest = Pick<RenderOrder, 'plan' | 'making'>;

/** Works out what a request asks for. @returns why it cannot be made where that is seen from the request. */
export function resolveRequest(request: RenderRequest): ResolvedRequest | RenderRefusal {
  const { sheets, mark, advised } = request;
  const job = createRequestedJob(request);
  if (!job) return 'no-canvas';
  const plan = planOfJob(job, sheets);
  const making = toJobEncodeSettings(job, { sheets, advisedOf: () => advised });
  if (plan.frames > MAX_FRAMES) return 'too-long';
  return renderMark(plan, making) === mark ? { plan, making } : 'other-version';
}
