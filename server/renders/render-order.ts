import { MAX_FRAMES } from '../../src/core/figures/bounded';
import { makingOfJob, planOfJob } from '../../src/core/check/check';
import { activeClip, type Job } from '../../src/core/job/job';
import { askedJob, renderMark, type RenderRequest } from '../../src/core/job/render-service';
import { ownFamiliesOf } from '../../src/core/render/overlays';
import { ownHash } from '../../src/core/words/families';
import type { RenderOrder } from '../render/order';
import type { Masters } from './masters';

/** Why a file is not begun. */
export type RenderRefusal = 'master-missing' | 'other-version' | 'no-canvas' | 'font-missing' | 'too-long';

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
  const { sheets, mark, advised } = request;
  const job = askedJob(request);
  if (!job) return 'no-canvas';
  const plan = planOfJob(job, sheets);
  const making = makingOfJob(job, { sheets, advisedOf: () => advised });
  if (plan.frames > MAX_FRAMES) return 'too-long';
  if (renderMark(plan, making) !== mark) return 'other-version';
  const files: Record<string, string> = {};
  const used = new Set(activeClip(job.edit).cut.map(({ master }) => master));
  for (const { id, fingerprint } of job.masters) {
    if (!used.has(id)) continue;
    const file = await masters.fileOf(visitor, fingerprint);
    if (file === null) return 'master-missing';
    files[fingerprint] = file;
  }
  for (const family of ownFamiliesOf(plan.overlays)) {
    const font = await masters.beginningWith(visitor, ownHash(family));
    if (font === null) return 'font-missing';
    files[font.fingerprint] = font.file;
  }
  return { job, order: { plan, making, masters: files } };
}
