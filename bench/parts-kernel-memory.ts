/** Measures whether the kernel's memory grows over a clip whose windows and tilts do. */
import { readFileSync } from 'node:fs';
import { plannedFrame, type RenderPlan } from '../src/core/render/plan';
import { Kernel } from '../src/kernel/kernel';
import { PanePainter } from '@render/pane-painter';
import { type Moving, movingPlan } from '../tests/moving-plan';
import type { Report } from './report';

const CLIPS: Record<string, Moving> = {
  'a tilt to 30°, wide': {
    size: { width: 1920, height: 1080 },
    frames: 240,
    from: { tilt: 0, zoom: 1 },
    to: { tilt: 30, zoom: 2.4 },
  },
  'a tilt to 30°, tall': {
    size: { width: 1080, height: 1920 },
    frames: 300,
    from: { tilt: 0, zoom: 1 },
    to: { tilt: 30, zoom: 2.4 },
  },
  'a zoom from 8 to 1 of 4K': {
    master: { coded: { width: 3840, height: 2160 } },
    frames: 1000,
    from: { zoom: 8 },
    to: { zoom: 1 },
  },
};
/** Frames of the first second; of the rest every so many are drawn. */
const SECOND = 30;
const STEP = 5;

export async function kernelMemory(report: Report): Promise<void> {
  for (const [name, clip] of Object.entries(CLIPS)) {
    const { first, whole } = await measureMemory(movingPlan(clip));
    report.line(`kernel memory, ${name}`, whole / 1e6, 'MB', first / 1e6, whole / first, '1.05 or less');
  }
}

async function measureMemory(plan: RenderPlan): Promise<{ first: number; whole: number }> {
  const kernel = await Kernel.load(readFileSync('src/kernel/kernel.wasm'));
  const painter = new PanePainter(kernel, plan);
  const [source] = plan.sources;
  if (!source) throw new Error('the plan has no master');
  painter.prepare(0, 'I420', source.coded);
  const draw = (frame: number) => {
    const planned = plannedFrame(plan, frame);
    for (const [index, pane] of planned.panes.entries()) {
      const part = painter.findPart(source, 'I420', source.coded, pane, planned.live);
      painter.paint(part, source, planned.masterFrame, source.coded, pane, index, painter.target());
    }
  };
  for (let frame = 0; frame < SECOND; frame++) draw(frame);
  const first = kernel.memoryBytes;
  for (let frame = SECOND; frame < plan.frames; frame += STEP) draw(frame);
  return { first, whole: kernel.memoryBytes };
}
