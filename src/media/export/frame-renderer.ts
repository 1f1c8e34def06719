import type { Source } from '@core/master/source';
import { boundsOf, type PictureWindow } from '@core/framing/window';
import type { Rect } from '@core/picture/size';
import type { PlannedFrame, PlannedPane, RenderPlan } from '@core/render/plan';
import { TroubleError } from '@core/trouble/trouble';
import { scaleBlurred } from '@kernel/backdrop';
import { conversion, limitedBt709 } from '@kernel/colour';
import { BLACK, Kernel, type SampleWindow } from '@kernel/kernel';
import { layOver } from '@kernel/lay-over';
import { isPixelLayout, type PlanarPicture } from '@kernel/planes';
import { scaleTilted, type TiltedWindow } from '@kernel/tilt';
import kernelUrl from '@kernel/kernel.wasm';

/** Samples around a window that its filter reaches when nothing is reduced: three lobes and the chroma's share. */
const REACH = 8;

/** Output colour, and what the file is tagged: limited-range BT.709. */
const OUTPUT_COLOUR = {
  primaries: 'bt709',
  transfer: 'bt709',
  matrix: 'bt709',
  fullRange: false,
} as const satisfies VideoColorSpaceInit;

/** Draws a plan's frames from decoded master frames, on YUV planes throughout. */
export class FrameRenderer {
  /** The frame whose fields the kernel remembers. */
  private lastFields: { id: string; frame: number; picture: PlanarPicture } | null = null;

  private constructor(
    private readonly kernel: Kernel,
    private readonly plan: RenderPlan,
  ) {}

  static async create(plan: RenderPlan): Promise<FrameRenderer> {
    const response = await fetch(kernelUrl);
    return new FrameRenderer(await Kernel.load(await response.arrayBuffer()), plan);
  }

  /**
   * Draws one output frame.
   * @param frame the decoded master frame; stays the caller's to close.
   * @param timestamp of the result, in microseconds. @param duration in microseconds.
   * @returns I420 in limited-range BT.709; the caller closes it.
   */
  async draw(
    frame: VideoFrame,
    planned: PlannedFrame,
    timestamp: number,
    duration: number,
  ): Promise<VideoFrame> {
    const { width, height } = this.plan;
    const source = this.plan.sources[planned.source] as Source;
    const target = this.kernel.target(width, height);
    for (const [index, pane] of planned.panes.entries()) {
      await this.drawPane(frame, source, planned.masterFrame, pane, target, `pane-${index}`);
    }
    const coefficients = conversion({
      matrix: source.colour.matrix ?? frame.colorSpace.matrix,
      fullRange: source.colour.fullRange ?? frame.colorSpace.fullRange,
    });
    if (coefficients) this.kernel.convert(target, coefficients);
    const { ground } = this.plan;
    this.kernel.fillBars(
      target,
      planned.panes.map((pane) => pane.picture),
      ground === null ? BLACK : limitedBt709(ground),
    );
    return new VideoFrame(this.kernel.bytes(target.address, target.size), {
      format: 'I420',
      codedWidth: width,
      codedHeight: height,
      timestamp,
      duration,
      layout: target.planes.map(({ offset, stride }) => ({ offset: offset - target.address, stride })),
      colorSpace: OUTPUT_COLOUR,
    });
  }

  /** Draws one pane's window where it lies, or beside it first where it must not spill or has round corners. */
  private async drawPane(
    frame: VideoFrame,
    source: Source,
    masterFrame: number,
    { picture, window, radius, blur }: PlannedPane,
    target: PlanarPicture,
    slot: string,
  ): Promise<void> {
    const { kernel } = this;
    const samples = samplesOf(frame, source, window);
    const { samples: copy, origin } = await this.read(frame, source, masterFrame, reachOf(samples));
    const from = { ...samples, x: samples.x - origin.x, y: samples.y - origin.y };
    const beside = radius > 0 || picture.x + picture.width < target.width;
    const own = { x: 0, y: 0, width: picture.width, height: picture.height };
    const surface = beside ? kernel.picture(slot, 'I420', own.width, own.height, 16) : target;
    const rect = beside ? own : picture;
    if (blur > 0) scaleBlurred(kernel, copy, from, surface, rect, blur);
    else if (window.angle === 0) kernel.scale(copy, from, surface, rect, slot);
    else scaleTilted(kernel, copy, from, surface, rect, slot);
    if (beside) layOver(kernel, surface, target, picture, radius);
  }

  /** A frame without combing; the frame before it helps where it was the last one drawn. */
  private wholeFrame(picture: PlanarPicture, source: Source, frame: number): PlanarPicture {
    const last = this.lastFields?.id === source.id ? this.lastFields : null;
    // Another pane of the same frame, or the frame again at another rate.
    if (last?.frame === frame) return last.picture;
    const drawn = this.kernel.deinterlaced(picture, last?.frame === frame - 1);
    this.lastFields = { id: source.id, frame, picture: drawn };
    return drawn;
  }

  /** Copies what a window needs of a frame to the kernel. `origin` is where the copy starts in the picture. */
  private async read(
    frame: VideoFrame,
    source: Source,
    masterFrame: number,
    window: SampleWindow,
  ): Promise<{ samples: PlanarPicture; origin: { x: number; y: number } }> {
    if (!isPixelLayout(frame.format)) {
      throw new TroubleError('pixel-format', { format: frame.format ?? 'an unknown pixel format' });
    }
    const visible = visibleSize(frame);
    const whole = { x: 0, y: 0, ...visible };
    const turns = source.rotation !== 0 || source.flip;
    // A turned picture is copied whole; else only the window and what its filter reaches.
    const rect = turns || source.deinterlace ? whole : reached(window, visible);
    const picture = this.kernel.source(frame.format, rect.width, rect.height);
    await frame.copyTo(this.kernel.bytes(picture.address, picture.size), {
      rect: { ...rect, x: rect.x + (frame.visibleRect?.x ?? 0), y: rect.y + (frame.visibleRect?.y ?? 0) },
      layout: picture.planes.map(({ offset, stride }) => ({ offset: offset - picture.address, stride })),
    });
    const fields = source.deinterlace ? this.wholeFrame(picture, source, masterFrame) : picture;
    const quarters = (source.rotation / 90) as 0 | 1 | 2 | 3;
    const samples = turns ? this.kernel.turned(fields, quarters, source.flip) : fields;
    return { samples, origin: { x: rect.x, y: rect.y } };
  }
}

/** A window, 0…1 of the picture, in samples of the picture as it is shown upright. */
function samplesOf(frame: VideoFrame, { rotation, picture }: Source, window: PictureWindow): TiltedWindow {
  const { width, height } = visibleSize(frame);
  const [across, down] = rotation % 180 === 0 ? [width, height] : [height, width];
  return {
    x: window.x * across,
    y: window.y * down,
    width: window.width * across,
    height: window.height * down,
    angle: window.angle,
    sampleAspect: picture.width / across / (picture.height / down),
  };
}

/** The upright rectangle around a turned window, in the same samples. */
function reachOf(window: TiltedWindow): SampleWindow {
  const { sampleAspect } = window;
  const live = (window.width * sampleAspect) / window.height;
  const { x, y, width, height } = boundsOf({ x: 0, y: 0, width: 1, height: 1, angle: window.angle }, live);
  return {
    x: window.x + x * window.width,
    y: window.y + y * window.height,
    width: width * window.width,
    height: height * window.height,
  };
}

function visibleSize(frame: VideoFrame): { width: number; height: number } {
  const rect = frame.visibleRect;
  return rect
    ? { width: rect.width, height: rect.height }
    : { width: frame.codedWidth, height: frame.codedHeight };
}

/** A window with its filter's reach, on even samples, inside the picture. */
function reached(window: SampleWindow, picture: { width: number; height: number }): Rect {
  const along = (start: number, size: number, length: number) => {
    const reach = REACH * Math.max(1, size / 128);
    const from = Math.max(0, Math.floor((start - reach) / 2) * 2);
    const to = Math.min(length, Math.ceil((start + size + reach) / 2) * 2);
    return { from, size: to - from };
  };
  const across = along(window.x, window.width, picture.width);
  const down = along(window.y, window.height, picture.height);
  return { x: across.from, y: down.from, width: across.size, height: down.size };
}
