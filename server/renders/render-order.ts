import { makingOfJob, planOfJob } from '../../src/core/check/check';
import { activeClip, type Job, onCanvas, onClip } from '../../src/core/job/job';
import { renderMark, type RenderRequest } from '../../src/core/job/render-service';
import type { RenderOrder } from '../render/order';
import type { Masters } from './masters';

/** Why a file is not begun. */
export type RenderRefusal = 'master-missing' | 'other-version' | 'no-canvas' | 'words';

/** What a request is for: its job on its canvas, and the order that follows from it. */
export interface Asked {
  job: Job;
  order: RenderOrder;
}

/** Works out what a browser asks for, or why it cannot have it. */
export async function askedOf(
  masters: Masters,
  visitor: string,
  request: RenderRequest,
): Promise<Asked | RenderRefusal> {
  const { clip, canvas, sheets, mark, advised } = request;
  const whole: Job = { ...request.job, exports: [], posts: [] };
  const found = whole.edit.clips.find(({ id }) => id === clip);
  if (!found?.canvases.some(({ id }) => id === canvas)) return 'no-canvas';
  const job = onCanvas(onClip(whole, clip), canvas);
  const plan = planOfJob(job, sheets);
  const making = makingOfJob(job, { sheets, advisedOf: () => advised });
  if (renderMark(plan, making) !== mark) return 'other-version';
  if (plan.overlays.length > 0) return 'words';
  const files: Record<string, string> = {};
  const used = new Set(activeClip(job.edit).cut.map(({ master }) => master));
  for (const { id, fingerprint } of job.masters) {
    if (!used.has(id)) continue;
    const file = await masters.fileOf(visitor, fingerprint);
    if (file === null) return 'master-missing';
    files[fingerprint] = file;
  }
  return { job, order: { plan, making, masters: files } };
}
