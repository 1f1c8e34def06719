import type { VideoSample } from 'mediabunny';
import type { Source } from '../../src/core/master/source';
import { decodeRuns } from '../../src/core/render/decode-runs';
import { plannedFrame, findSegment } from '../../src/core/render/plan';
import { planPart } from '../../src/core/render/plan-part';
import { TroubleError } from '../../src/core/trouble/trouble';
import type { Kernel } from '../../src/kernel/kernel';
import type { PixelLayout } from '../../src/kernel/planes';
import { createTightBytes } from '../../src/kernel/tight-bytes';
import { toColourFacts } from '../../src/render/frame-colour';
import { type DecodedPicture, PlanDrawer } from '../../src/render/plan-drawer';
import { WordBlender } from '../../src/render/words/word-blender';
import { openServerFonts } from './canvas';
import { Films, openServerKernel } from './films';
import type { RenderOrder, Segment } from './order';

/** Drawn frames that wait to be taken, at most. */
const MAX_TAKEN = 4;

/** A sample that ffmpeg decoded, as a plan's drawer takes it. */
function decodedPicture(kernel: Kernel, sample: VideoSample, source: Source): DecodedPicture {
  return {
    layout: sample.format as PixelLayout,
    stored: { width: sample.codedWidth, height: sample.codedHeight },
    colour: toColourFacts(sample, source),
    async copy(picture, rect) {
      const layout = picture.planes.map(({ offset, stride }) => ({
        offset: offset - picture.address,
        stride,
      }));
      await sample.copyTo(kernel.bytes(picture.address, picture.size), { rect, layout });
    },
  };
}

/**
 * Draws the output frames of a segment in order.
 * @param take gets each as tight I420 in limited-range BT.709; it is another's once that resolves.
 * @throws TroubleError `damaged` where a master's frame is missing.
 */
export async function drawSegment(
  order: RenderOrder,
  { start, frames }: Segment,
  take: (frame: Uint8Array, number: number) => Promise<void>,
  signal: AbortSignal,
): Promise<void> {
  const { plan } = order;
  const opened = plan.overlays.length > 0 ? await openServerFonts(order) : null;
  const films = new Films(order);
  try {
    const kernel = await openServerKernel();
    const words = opened && (await WordBlender.open(kernel, plan, () => Promise.resolve(opened.fonts)));
    const drawer = new PlanDrawer(kernel, plan, words);
    const end = start + frames;
    let next = start;
    /** Frames that are being taken: their room is used again in turn. */
    const slots: { frame: Uint8Array<ArrayBuffer>; taken: Promise<void> }[] = [];
    for (const run of decodeRuns([planPart(plan, start, end)])) {
      const reader = await films.of(run.source);
      for await (const { frame, sample } of reader.frames(run.in, run.out)) {
        for (; next < end && findSegment(plan, next).range <= run.lastRange; next++) {
          const planned = plannedFrame(plan, next);
          if (planned.masterFrame !== frame) break;
          if (signal.aborted) throw new TroubleError('cancelled');
          const drawn = await drawer.draw(decodedPicture(kernel, sample, films.source(run.source)), planned);
          const slot = slots.length < MAX_TAKEN ? undefined : slots.shift();
          await slot?.taken;
          const bytes = createTightBytes(kernel, drawn, slot?.frame);
          const taken = take(bytes, next);
          taken.catch(() => undefined);
          slots.push({ frame: bytes, taken });
        }
      }
    }
    await Promise.all(slots.map(({ taken }) => taken));
    if (next < end) {
      const file = films.source(findSegment(plan, next).source).fileName;
      throw new TroubleError('damaged', { file, detail: `frame ${next} of the clip is missing` });
    }
  } finally {
    films.close();
    opened?.close();
  }
}
