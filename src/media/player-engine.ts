import type { VideoSample } from 'mediabunny';
import type { Master } from '@core/job/master';
import type { Size } from '@core/picture/size';
import { frameOf, type RenderPlan } from '@core/render/plan';
import { rateValue, secondsOf } from '@core/time/frame-rate';
import { type Trouble, troubleOf } from '@core/trouble/trouble';
import { MasterReader } from './master-reader';
import type { PlayerEvent, PlayerOrder, View } from './player-protocol';

/** Sound is sent this far ahead of what is heard, in seconds. */
const SOUND_AHEAD = 2;
/** However late decoding is, a picture is shown at least this often, in milliseconds. */
const LONGEST_GAP = 250;
/** Going forward by at most this many frames reads on; further away it seeks. */
const READ_ON = 24;

type Frames = ReturnType<MasterReader['frames']>;

const now = (): number => performance.timeOrigin + performance.now();
const sleep = (milliseconds: number): Promise<void> =>
  new Promise((resolve) => setTimeout(resolve, milliseconds));

/** Decodes, paces and draws what the page shows of one master. It holds one decoded frame: the one on screen. */
export class PlayerEngine {
  private reader: MasterReader | null = null;
  private plan: RenderPlan | null = null;
  private sizes: Partial<Record<View, Size>> = {};
  private held: { frame: number; sample: VideoSample } | null = null;
  private cursor: { frames: Frames; next: number } | null = null;
  /** Grows with every order that ends what runs. */
  private generation = 0;
  private wanted: number | null = null;
  private seeking = false;
  private redrawWaits = false;
  private readonly canvases: Partial<Record<View, OffscreenCanvas>> = {};

  constructor(private readonly tell: (event: PlayerEvent, transfer?: Transferable[]) => void) {}

  /** Carries out one order of the page. */
  async obey(order: PlayerOrder): Promise<void> {
    try {
      switch (order.type) {
        case 'open':
          this.reader = await MasterReader.open(order.master);
          if (this.wanted !== null) await this.seek();
          return;
        case 'plan':
          this.plan = order.plan;
          return this.redrawSoon();
        case 'views':
          this.sizes = order.sizes;
          return this.redrawSoon();
        case 'show':
          this.generation += 1;
          this.wanted = order.frame;
          return await this.seek();
        case 'play':
          return await this.play(order.from, order.to, order.startsAt);
        case 'pause':
          this.generation += 1;
          return;
      }
    } catch (error) {
      this.tell({ type: 'failed', trouble: this.troubleOf(error) });
    }
  }

  /** Shows the frame that was asked for last; orders that come meanwhile replace it. */
  private async seek(): Promise<void> {
    if (this.seeking || !this.reader) return;
    this.seeking = true;
    try {
      while (this.wanted !== null) {
        const frame = this.wanted;
        this.wanted = null;
        await this.readTo(frame, this.reader.master);
      }
    } finally {
      this.seeking = false;
    }
  }

  private async readTo(frame: number, master: Master): Promise<void> {
    if (this.held?.frame === frame) return this.redraw();
    const reader = this.reader as MasterReader;
    if (!this.cursor || frame < this.cursor.next || frame > this.cursor.next + READ_ON) {
      await this.dropCursor();
      this.cursor = { frames: reader.frames(frame, master.frames), next: frame };
    }
    const cursor = this.cursor;
    while (cursor.next <= frame) {
      const step = await cursor.frames.next();
      if (step.done) return this.dropCursor();
      cursor.next = step.value.frame + 1;
      if (step.value.frame === frame) this.hold(frame, step.value.sample.clone());
    }
  }

  private troubleOf(error: unknown): Trouble {
    return troubleOf(error, 'damaged', { file: this.reader?.master.fileName ?? 'The master' });
  }

  private async dropCursor(): Promise<void> {
    const cursor = this.cursor;
    this.cursor = null;
    await cursor?.frames.return();
  }

  private async play(from: number, to: number, startsAt: number): Promise<void> {
    const reader = this.reader;
    if (!reader) return;
    const generation = ++this.generation;
    const running = () => generation === this.generation;
    await this.dropCursor();
    void this.playSound(reader, from, to, startsAt, running).catch((error: unknown) =>
      this.tell({ type: 'failed', trouble: this.troubleOf(error) }),
    );
    const frameTime = 1000 / rateValue(reader.master.rate);
    let shownAt = 0;
    for await (const { frame, sample } of reader.frames(from, to)) {
      if (!running()) return;
      const due = startsAt + secondsOf(frame - from, reader.master.rate) * 1000;
      const late = now() - due;
      if (late > frameTime && now() - shownAt < LONGEST_GAP) continue;
      if (late < 0) await sleep(-late);
      if (!running()) return;
      this.hold(frame, sample.clone());
      shownAt = now();
    }
    if (running()) this.tell({ type: 'ended' });
  }

  private async playSound(
    reader: MasterReader,
    from: number,
    to: number,
    startsAt: number,
    running: () => boolean,
  ): Promise<void> {
    const start = secondsOf(from, reader.master.rate);
    const end = secondsOf(to, reader.master.rate);
    for await (const sample of reader.sound(from, to) ?? []) {
      try {
        const at = reader.soundSeconds(sample) - start;
        while (running() && at > (now() - startsAt) / 1000 + SOUND_AHEAD) await sleep(100);
        if (!running() || at + start >= end) return;
        const channels = Array.from({ length: Math.min(2, sample.numberOfChannels) }, (_, planeIndex) => {
          const plane = new Float32Array(sample.numberOfFrames);
          sample.copyTo(plane, { planeIndex, format: 'f32-planar' });
          return plane;
        });
        this.tell(
          { type: 'sound', at, sampleRate: sample.sampleRate, channels },
          channels.map((c) => c.buffer),
        );
      } finally {
        sample.close();
      }
    }
  }

  private hold(frame: number, sample: VideoSample): void {
    this.held?.sample.close();
    this.held = { frame, sample };
    this.redraw();
  }

  /** Draws once after all orders that are waiting: a drag sends more plans than can be drawn. */
  private redrawSoon(): void {
    if (this.redrawWaits) return;
    this.redrawWaits = true;
    setTimeout(() => {
      this.redrawWaits = false;
      this.redraw();
    });
  }

  /** Draws the held frame on every view that is on screen. */
  private redraw(): void {
    if (!this.held || !this.reader) return;
    const { frame, sample } = this.held;
    const pictures: Partial<Record<View, ImageBitmap>> = {};
    const { master, canvas } = this.sizes;
    if (master) {
      const { surface, ink } = this.surface('master', master);
      sample.draw(ink, 0, 0, master.width, master.height);
      pictures.master = surface.transferToImageBitmap();
    }
    if (canvas && this.plan) pictures.canvas = this.drawCanvas(canvas, this.plan, frame, sample);
    this.tell({ type: 'frame', frame, pictures }, Object.values(pictures));
  }

  private drawCanvas(size: Size, plan: RenderPlan, frame: number, sample: VideoSample): ImageBitmap {
    const { surface, ink } = this.surface('canvas', size);
    const scale = size.width / plan.width;
    // Windows are in the upright picture; the sample draws itself upright too.
    const { displayWidth, displayHeight } = sample;
    ink.fillStyle = '#000';
    ink.fillRect(0, 0, size.width, size.height);
    for (const { picture, window } of frameOf(plan, Math.min(frame, plan.frames - 1)).panes) {
      sample.draw(
        ink,
        window.x * displayWidth,
        window.y * displayHeight,
        window.width * displayWidth,
        window.height * displayHeight,
        picture.x * scale,
        picture.y * scale,
        picture.width * scale,
        picture.height * scale,
      );
    }
    return surface.transferToImageBitmap();
  }

  private surface(
    view: View,
    size: Size,
  ): { surface: OffscreenCanvas; ink: OffscreenCanvasRenderingContext2D } {
    const surface = (this.canvases[view] ??= new OffscreenCanvas(size.width, size.height));
    if (surface.width !== size.width || surface.height !== size.height) {
      surface.width = size.width;
      surface.height = size.height;
    }
    const ink = surface.getContext('2d', { alpha: false });
    if (!ink) throw new Error('this browser gives no 2D canvas to a worker');
    ink.imageSmoothingQuality = 'high';
    return { surface, ink };
  }
}
