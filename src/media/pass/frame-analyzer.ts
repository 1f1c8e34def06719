import type { Source } from '@core/master/source';
import { meanDistance, type Grey } from '@core/pass/grey';
import { brightLevel } from '@core/pass/live-area-finder';
import { STRIP } from '@core/pass/pass';
import { rateValue } from '@core/time/frame-rate';
import { brightCounts, combShare, greyCopy, halvePicture, topFieldFirst } from '@kernel/analysis';
import type { Kernel } from '@kernel/kernel';
import type { PlanarPicture } from '@kernel/planes';
import { taggedColour } from '@render/frame-colour';
import { planarFrame } from '../read/planar-frame';
import { copyPlanes, toPixelLayout, storedSize } from '../read/frame-planes';
import type { FrameMeasurements } from './lane-protocol';

/** Bars and combing are looked for a few times a second. */
const LOOKS_A_SECOND = 4;
/** Halving stops before the shorter side falls below this: 1080 and 2160 lines become 540. */
const MIN_SIDE = 360;
/** Long side of the grey copies, about, in samples. */
const GREY_SIDE = 160;
/** A frame combs when this share of its samples stands out between rows: whole frames stay well below. */
const COMBS = 0.012;
/** Movement below this cannot comb, in grey levels. */
const MOVES = 0.8;
/** Movement above this is a cut: the fields of the two frames tell nothing of each other. */
const CUTS = 25;

/** Sees one frame after another of a span, each beside the one before it. */
export class FrameAnalyzer {
  private before: Grey | null = null;
  /** The rows of the last frame that combed, while the next one is awaited. */
  private combing: PlanarPicture | null = null;
  private count = 0;
  private strip = -1;

  constructor(
    private readonly kernel: Kernel,
    private readonly source: Source,
  ) {}

  /** The next frame is not the one after the last. */
  beginSpan(): void {
    this.before = null;
    this.combing = null;
    this.count = 0;
  }

  /**
   * @param frame its number at the source's rate. @returns what was seen, and the picture made small, whose planes
   * are valid until the next frame.
   * @throws TroubleError `pixel-format` for one that cannot be read.
   */
  async see(decoded: VideoFrame, frame: number): Promise<{ seen: FrameMeasurements; small: PlanarPicture }> {
    const picture = await this.read(decoded);
    const small = this.shrink(picture);
    const grey = greyCopy(this.kernel, small, GREY_SIDE);
    const movement = this.before ? meanDistance(this.before, grey) : 0;
    this.before = grey;
    const order = this.toOrder(picture, movement);
    const every = Math.max(1, Math.round(rateValue(this.source.rate) / LOOKS_A_SECOND));
    const close = this.count % every === 0;
    this.count += 1;
    const level = brightLevel(this.source.colour.fullRange === true);
    const seen = {
      frame,
      grey,
      bright: close ? brightCounts(this.kernel, picture, level) : null,
      combs: close && movement >= MOVES ? this.combs(picture) : null,
      order,
      tile: this.drawTile(small, frame),
    };
    return { seen, small };
  }

  private async read(decoded: VideoFrame): Promise<PlanarPicture> {
    const { width, height } = storedSize(decoded);
    const stored = this.kernel.source(toPixelLayout(decoded), width, height);
    await copyPlanes(this.kernel, stored, decoded, { x: 0, y: 0, width, height }, this.source);
    return this.kernel.planar(stored);
  }

  /** The proxy's picture: halved while it is large; other chroma than 4:2:0 takes the resampler's way. */
  private shrink(picture: PlanarPicture): PlanarPicture {
    let halvings = 0;
    for (let side = Math.min(picture.width, picture.height) / 2; side >= MIN_SIDE; side /= 2) halvings += 1;
    if (!picture.layout.startsWith('I420') || halvings === 0) {
      const even = (side: number) => Math.max(2, Math.floor(side / 2 ** halvings / 2) * 2);
      const target = this.kernel.target(even(picture.width), even(picture.height));
      const { width, height } = target;
      const window = { x: 0, y: 0, width: picture.width, height: picture.height };
      this.kernel.scale(picture, window, target, { x: 0, y: 0, width, height });
      return target;
    }
    let small = picture;
    for (let n = 0; n < halvings; n++) small = halvePicture(this.kernel, small, `half-${n}`);
    return small;
  }

  /** Smaller again, of the first frame in each of the steps that the finest filmstrip takes. */
  private drawTile(small: PlanarPicture, frame: number): VideoFrame | null {
    const step = Math.floor(frame / STRIP.every[0]);
    if (step === this.strip) return null;
    this.strip = step;
    const enough =
      small.layout.startsWith('I420') && Math.min(small.width, small.height) >= 4 * STRIP.tileHeight;
    const tile = enough ? halvePicture(this.kernel, small, 'tile') : small;
    return planarFrame(this.kernel, tile, { timestamp: 0 }, taggedColour(this.source));
  }

  private combs(picture: PlanarPicture): boolean {
    if (combShare(this.kernel, picture) < COMBS) return false;
    const luma = picture.planes[0];
    if (luma) {
      const bytes = luma.stride * luma.height;
      const address = this.kernel.block('combing', bytes + 64);
      this.kernel.bytes(address, bytes).set(this.kernel.bytes(luma.offset, bytes));
      this.combing = { ...picture, planes: [{ ...luma, offset: address }] };
    }
    return true;
  }

  /** The frame after one that combs tells which field came first. */
  private toOrder(picture: PlanarPicture, movement: number): number | null {
    const { combing } = this;
    this.combing = null;
    if (!combing || movement < MOVES || movement > CUTS) return null;
    return topFieldFirst(this.kernel, combing, picture);
  }
}
