import type { Source } from '@core/master/source';
import { decodeRuns } from '@core/render/decode-runs';
import { plannedFrame, type RenderPlan } from '@core/render/plan';
import { FrameRenderer } from '@media/export/frame-renderer';
import { MasterReader } from '@media/read/master-reader';

/** SHA-256 of every frame of a plan as the browser draws it, before any encoder; in hex. */
async function hashes(plan: RenderPlan): Promise<string[]> {
  const found: string[] = [];
  const renderer = await FrameRenderer.create(plan);
  for (const run of decodeRuns([plan])) {
    const reader = await MasterReader.open(plan.sources[run.source] as Source);
    for await (const { frame, sample } of reader.frames(run.in, run.out)) {
      for (let planned; found.length < plan.frames; found.push(await hashOf(planned))) {
        const next = plannedFrame(plan, found.length);
        if (next.masterFrame !== frame) break;
        const decoded = sample.toVideoFrame();
        planned = await renderer.draw(decoded, next, 0, 1);
        decoded.close();
      }
    }
    reader.close();
  }
  return found;
}

async function hashOf(frame: VideoFrame): Promise<string> {
  const bytes = new Uint8Array(frame.allocationSize());
  await frame.copyTo(bytes);
  frame.close();
  const digest = new Uint8Array(await crypto.subtle.digest('SHA-256', bytes));
  return Array.from(digest, (byte) => byte.toString(16).padStart(2, '0')).join('');
}

Object.assign(globalThis, { drawnHashes: hashes });
