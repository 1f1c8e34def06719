import type { Master } from '@core/job/master';
import type { Rect } from '@core/picture/size';
import type { PlannedFrame, RenderPlan } from '@core/render/plan';
import { TroubleError } from '@core/trouble/trouble';
import { conversion } from '@kernel/colour';
import { Kernel, type SampleWindow } from '@kernel/kernel';
import { isPixelLayout, type PlanarPicture } from '@kernel/planes';
import kernelUrl from '@kernel/kernel.wasm';

/** Samples around a window that its filter reaches when nothing is reduced: three lobes and the chroma's share. */
const REACH = 8;

/** Output colour, and what the file is tagged: limited-range BT.709. */
export const OUTPUT_COLOUR = {
  primaries: 'bt709',
  transfer: 'bt709',
  matrix: 'bt709',
  fullRange: false,
} as const satisfies VideoColorSpaceInit;

/** Draws a plan's frames from decoded master frames, on YUV planes throughout. */
export class FrameRenderer {
  private constructor(
    private readonly kernel: Kernel,
    private readonly plan: RenderPlan,
    private readonly master: Master,
  ) {}

  static async create(plan: RenderPlan, master: Master): Promise<FrameRenderer> {
    const response = await fetch(kernelUrl);
    return new FrameRenderer(await Kernel.load(await response.arrayBuffer()), plan, master);
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
    const target = this.kernel.target(width, height);
    for (const { picture, window } of planned.panes) {
      const samples = this.samplesOf(frame, window);
      const { source, origin } = await this.read(frame, samples);
      this.kernel.scale(
        source,
        { ...samples, x: samples.x - origin.x, y: samples.y - origin.y },
        target,
        picture,
      );
    }
    this.kernel.fillBars(
      target,
      planned.panes.map((one) => one.picture),
    );
    const coefficients = conversion({
      matrix: frame.colorSpace.matrix ?? this.master.colour.matrix,
      fullRange: frame.colorSpace.fullRange ?? this.master.colour.fullRange,
    });
    if (coefficients) this.kernel.convert(target, coefficients);
    return new VideoFrame(this.kernel.bytes(target.at, target.size), {
      format: 'I420',
      codedWidth: width,
      codedHeight: height,
      timestamp,
      duration,
      layout: target.planes.map(({ offset, stride }) => ({ offset: offset - target.at, stride })),
      colorSpace: OUTPUT_COLOUR,
    });
  }

  /** A window, 0…1 of the picture, in samples of the picture as it is shown upright. */
  private samplesOf(frame: VideoFrame, window: Rect): SampleWindow {
    const { width, height } = visibleSize(frame);
    const sideways = this.master.rotation % 180 !== 0;
    const [across, down] = sideways ? [height, width] : [width, height];
    return {
      x: window.x * across,
      y: window.y * down,
      width: window.width * across,
      height: window.height * down,
    };
  }

  /** Copies what a window needs of a frame to the kernel. `origin` is where the copy starts in the picture. */
  private async read(
    frame: VideoFrame,
    window: SampleWindow,
  ): Promise<{ source: PlanarPicture; origin: { x: number; y: number } }> {
    if (!isPixelLayout(frame.format)) {
      throw new TroubleError('pixel-format', { format: frame.format ?? 'an unknown pixel format' });
    }
    const visible = visibleSize(frame);
    const whole = { x: 0, y: 0, ...visible };
    // A turned picture is copied whole; else only the window and what its filter reaches.
    const rect = this.master.rotation === 0 ? reached(window, visible) : whole;
    const picture = this.kernel.source(frame.format, rect.width, rect.height);
    await frame.copyTo(this.kernel.bytes(picture.at, picture.size), {
      rect: { ...rect, x: rect.x + (frame.visibleRect?.x ?? 0), y: rect.y + (frame.visibleRect?.y ?? 0) },
      layout: picture.planes.map(({ offset, stride }) => ({ offset: offset - picture.at, stride })),
    });
    const quarters = this.master.rotation / 90;
    const source = quarters === 0 ? picture : this.kernel.turned(picture, quarters as 1 | 2 | 3);
    return { source, origin: { x: rect.x, y: rect.y } };
  }
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
