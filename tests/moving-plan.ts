import type { Framing } from '../src/core/framing/framing';
import { activeCanvas } from '../src/core/job/clip';
import { applyCommand, type Command } from '../src/core/job/commands/commands';
import { activeClip, type Job, listSources } from '../src/core/job/job';
import { createFramingCommand, keep, testFraming, testJob, testMaster } from '../src/core/job/test-job';
import { type Layout, PLAIN_LAYOUT } from '../src/core/layout/layout';
import type { Master } from '../src/core/master/master';
import { NO_REPAIRS, type Repairs } from '../src/core/master/repairs';
import { createRenderPlan, type RenderPlan } from '../src/core/render/plan';
import type { FrameRate } from '../src/core/time/frame-rate';

const THIRTY: FrameRate = { num: 30, den: 1 };

/** A clip of 30 fps in which one thing moves. */
export interface Moving {
  master?: Partial<Master>;
  size?: { width: number; height: number };
  frames: number;
  /** Values of the first and of the last keyframe. */
  from: object;
  to: object;
  layout?: Partial<Layout>;
  repairs?: Partial<Repairs>;
}

/** A plan whose window moves over its whole length. */
export function movingPlan({ master, size, frames, from, to, layout, repairs }: Moving): RenderPlan {
  const job: Job = testJob({ rate: THIRTY, frames, ...master });
  const plain = testFraming();
  const [key] = plain.keyframes;
  const framing: Framing = {
    ...plain,
    keyframes: [
      { ...key!, ...from, frame: 0 },
      { ...key!, ...to, frame: frames - 1 },
    ],
  };
  const commands: Command[] = [keep(0, frames), createFramingCommand({}, framing)];
  const edit = commands.reduce(applyCommand, job.edit);
  const { id } = testMaster();
  const work = { ...job, edit: { ...edit, repairs: { [id]: { ...NO_REPAIRS, ...repairs } } } };
  const clip = activeClip(work.edit);
  const canvas = { ...activeCanvas(clip), ...size, layout: { ...PLAIN_LAYOUT, ...layout } };
  return createRenderPlan(
    { ...canvas, rate: THIRTY },
    { ...work.edit, cut: clip.cut, sources: listSources(work) },
  );
}
