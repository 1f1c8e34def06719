import { readFileSync } from 'node:fs';
import { plannedFrame, type RenderPlan } from '@core/render/plan';
import { Kernel } from '@kernel/kernel';
import type { PixelLayout } from '@kernel/planes';
import { type Moving, movingPlan } from '../../tests/moving-plan';
import { drawn } from '../../tests/soak';
import { PanePainter } from './pane-painter';

const MB = 2 ** 20;

async function paintPlan(plan: RenderPlan, layout: PixelLayout, step: number) {
  const kernel = await Kernel.load(readFileSync('src/kernel/kernel.wasm'));
  const painter = new PanePainter(kernel, plan);
  const source = plan.sources[0]!;
  const stored = source.coded;
  painter.prepare(0, layout, stored);
  const before = kernel.memoryBytes;
  const target = painter.target();
  for (let n = 0; n < plan.frames; n += step) {
    const planned = plannedFrame(plan, n);
    for (const [index, pane] of planned.panes.entries()) {
      const part = painter.findPart(source, layout, stored, pane, planned.live);
      painter.paint(part, source, planned.masterFrame, stored, pane, index, target);
    }
  }
  return { before, after: kernel.memoryBytes };
}

describe("the kernel's memory", () => {
  const plans: [string, Moving, PixelLayout, number][] = [
    [
      'a wide canvas that tilts to 30°',
      {
        size: { width: 1920, height: 1080 },
        frames: 240,
        from: { tilt: 0, zoom: 1 },
        to: { tilt: 30, zoom: 2.4 },
      },
      'I420',
      4,
    ],
    [
      'a tall canvas that tilts',
      {
        size: { width: 1080, height: 1920 },
        frames: 300,
        from: { tilt: -20, zoom: 3 },
        to: { tilt: 25, zoom: 1 },
      },
      'NV12',
      7,
    ],
    [
      'a zoom from 8 to 1 of 4K',
      {
        master: { coded: { width: 3840, height: 2160 } },
        frames: 1000,
        from: { zoom: 8 },
        to: { zoom: 1 },
      },
      'I420P10',
      9,
    ],
    [
      'stacked panes',
      { frames: 60, from: { zoom: 4, tilt: 3 }, to: { zoom: 1, tilt: 0 }, layout: { kind: 'stacked' } },
      'I444',
      1,
    ],
    [
      'an inset, and a soft backdrop',
      { frames: 60, from: { zoom: 4 }, to: { zoom: 1 }, layout: { kind: 'backdrop' } },
      'I422P10',
      1,
    ],
    [
      'a master that is turned, and whose fields are drawn anew',
      {
        frames: 40,
        from: { zoom: 5, tilt: 9 },
        to: { zoom: 1, tilt: 0 },
        repairs: { rotation: 90, deinterlace: true },
      },
      'NV12',
      1,
    ],
  ];
  it.each(drawn(plans, 3))(
    'is taken once, and does not grow: %s',
    async (_, of, layout, step) => {
      const { before, after } = await paintPlan(movingPlan(of), layout, step);
      expect(after).toBe(before);
      expect(after).toBeLessThan(160 * MB);
    },
    60_000,
  );
});
