import type { VideoSample } from 'mediabunny';
import type { Source } from '@core/job/source';
import { meanDistance, type Grey } from '@core/pass/grey';
import { brightLevel, LiveAreaFinder } from '@core/pass/live-area-finder';
import { ShotFinder } from '@core/pass/shot-finder';
import type { FoundShot } from '@core/pass/pass';
import { TroubleError } from '@core/trouble/trouble';
import { brightCounts, combShare, greyCopy, halved, topFieldFirst } from '@kernel/analysis';
import type { Kernel } from '@kernel/kernel';
import { isPixelLayout, type PlanarPicture } from '@kernel/planes';

/** Bars and combing are looked for a few times a second. */
const LOOKS_A_SECOND = 4;
/** Halving stops before the shorter side falls below this: 1080 and 2160 lines become 540. */
const LEAST_SIDE = 360;
/** Long side of the grey copies, about, in samples. */
const GREY_SIDE = 160;
/** A frame combs when this share of its samples stands out between rows: whole frames stay well below. */
const COMBS = 0.012;
/** Movement below this cannot comb, in grey levels. */
const MOVES = 0.8;

/** A decoded frame made small, and its grey copy. The planes are valid until the next frame. */
export interface Small {
  picture: PlanarPicture;
  grey: Grey;
}

/** Looks at every frame of a master once, in order: shots, live area, combing, movement. */
export class PassPictures {
  private readonly shots = new ShotFinder();
  private live: LiveAreaFinder | null = null;
  private before: Grey | null = null;
  /** The rows of the last frame that combed, while the next one is awaited. */
  private combing: PlanarPicture | null = null;
  private count = 0;
  private looked = 0;
  private combed = 0;
  private orders: number[] = [];
  private readonly numbers: number[] = [];
  private readonly moved: { sum: number; count: number }[] = [];

  constructor(
    private readonly kernel: Kernel,
    private readonly source: Source,
  ) {}

  /** @param frame its number at the source's rate. @throws TroubleError for a pixel format that cannot be read. */
  async look(sample: VideoSample, frame: number): Promise<Small> {
    const picture = await this.read(sample);
    this.numbers.push(frame);
    const small = this.shrink(picture);
    const grey = greyCopy(this.kernel, small, GREY_SIDE);
    this.shots.push(grey);
    const movement = this.before ? meanDistance(this.before, grey) : 0;
    this.before = grey;
    this.addMovement(frame, movement);
    const every = Math.max(1, Math.round(this.source.rate.num / this.source.rate.den / LOOKS_A_SECOND));
    this.lookAtOrder(picture, movement);
    if (this.count % every === 0) this.lookClosely(picture, frame, movement);
    this.count += 1;
    return { picture: small, grey };
  }

  /** What was found. */
  finish(): {
    shots: FoundShot[];
    live: ReturnType<LiveAreaFinder['whole']>;
    combed: number;
    topFirst: boolean | null;
    motion: number[];
  } {
    const whole = this.live?.whole() ?? { live: null, confidence: 0 };
    const found = [{ frame: 0, start: null }, ...this.shots.finish()];
    const numberOf = (n: number) => this.numbers[n] ?? this.source.frames;
    const shots = found.map(({ frame, start }, i): FoundShot => {
      const own = this.live?.between(numberOf(frame), numberOf(found[i + 1]?.frame ?? Infinity));
      const differs = own?.live && !(whole.live && near(own.live, whole.live));
      return { frame: numberOf(frame), start, live: differs ? own.live : null };
    });
    const firsts = this.orders.filter((order) => order > 1).length;
    const sure = this.orders.length >= 3 && Math.abs(firsts / this.orders.length - 0.5) > 0.2;
    return {
      shots,
      live: whole,
      combed: this.looked === 0 ? 0 : this.combed / this.looked,
      topFirst: sure ? firsts * 2 > this.orders.length : null,
      motion: this.moved.map(({ sum, count }) => sum / Math.max(1, count)),
    };
  }

  private async read(sample: VideoSample): Promise<PlanarPicture> {
    const frame = sample.toVideoFrame();
    try {
      if (!isPixelLayout(frame.format)) {
        throw new TroubleError('pixel-format', { format: frame.format ?? 'an unknown pixel format' });
      }
      const { width, height } = frame.visibleRect ?? { width: frame.codedWidth, height: frame.codedHeight };
      const stored = this.kernel.source(frame.format, width, height);
      await frame.copyTo(this.kernel.bytes(stored.at, stored.size), {
        layout: stored.planes.map(({ offset, stride }) => ({ offset: offset - stored.at, stride })),
      });
      return this.kernel.planar(stored);
    } finally {
      frame.close();
    }
  }

  /** The proxy's picture: halved while it is large; other chroma than 4:2:0 takes the resampler's way. */
  private shrink(picture: PlanarPicture): PlanarPicture {
    let halvings = 0;
    for (let side = Math.min(picture.width, picture.height) / 2; side >= LEAST_SIDE; side /= 2) halvings += 1;
    if (!picture.layout.startsWith('I420') || halvings === 0) {
      const even = (side: number) => Math.max(2, Math.floor(side / 2 ** halvings / 2) * 2);
      const target = this.kernel.target(even(picture.width), even(picture.height));
      const { width, height } = target;
      const window = { x: 0, y: 0, width: picture.width, height: picture.height };
      this.kernel.scale(picture, window, target, { x: 0, y: 0, width, height });
      return target;
    }
    let small = picture;
    for (let n = 0; n < halvings; n++) small = halved(this.kernel, small, `half-${n}`);
    return small;
  }

  private addMovement(frame: number, movement: number): void {
    const second = Math.floor((frame * this.source.rate.den) / this.source.rate.num);
    const slot = (this.moved[second] ??= { sum: 0, count: 0 });
    slot.sum += movement;
    slot.count += 1;
  }

  private lookClosely(picture: PlanarPicture, frame: number, movement: number): void {
    const { width, height } = picture;
    this.live ??= new LiveAreaFinder({ width, height });
    const level = brightLevel(this.source.colour.fullRange === true);
    this.live.push(frame, brightCounts(this.kernel, picture, level));
    if (movement < MOVES) return;
    this.looked += 1;
    if (combShare(this.kernel, picture) < COMBS) return;
    this.combed += 1;
    const luma = picture.planes[0];
    if (!luma) return;
    const at = this.kernel.block('combing', luma.stride * luma.height + 64);
    this.kernel
      .bytes(at, luma.stride * luma.height)
      .set(this.kernel.bytes(luma.offset, luma.stride * luma.height));
    this.combing = { ...picture, planes: [{ ...luma, offset: at }] };
  }

  /** The frame after one that combs tells which field came first. */
  private lookAtOrder(picture: PlanarPicture, movement: number): void {
    const { combing } = this;
    this.combing = null;
    // A cut between the two would tell nothing.
    if (!combing || movement < MOVES || movement > 25) return;
    this.orders.push(topFieldFirst(this.kernel, combing, picture));
  }
}

const near = (a: { x: number; y: number; width: number; height: number }, b: typeof a): boolean =>
  Math.max(
    Math.abs(a.x - b.x),
    Math.abs(a.y - b.y),
    Math.abs(a.width - b.width),
    Math.abs(a.height - b.height),
  ) < 0.004;
