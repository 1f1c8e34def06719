import type { AudioSample, VideoSample } from 'mediabunny';
import type { Source } from '@core/master/source';
import type { Size } from '@core/picture/size';
import type { PlanOverlay } from '@core/render/overlays';
import type { PlanSegment, RenderPlan } from '@core/render/plan';
import { withSegments } from '@core/render/redraw-segments';
import { rateValue, toSeconds } from '@core/time/frame-rate';
import { type Trouble, toTrouble } from '@core/trouble/trouble';
import type { MasterReader } from '../read/master-reader';
import { FrameCursor } from './frame-cursor';
import type {
  HeldPiece,
  SoundPiece,
  PlayerEvent,
  PlayerOrder,
  Quality,
  Speed,
  View,
} from './player-protocol';
import { PlayerSources } from './player-sources';
import { whilePlaying } from './playing-lock';
import { samplePlanes } from '@render/master-sound';
import { toPreviewPicture, type Picture } from './preview-picture';
import { Stage } from './stage';
import { StageWords } from './stage-words';

/** Sound is sent this far ahead of what is heard, in seconds. */
const SOUND_AHEAD = 2;
/** However late decoding is, a picture is shown at least this often, in milliseconds. */
const LONGEST_GAP = 250;
/** The proxy's frame is replaced by the master's own after this long without another wish, in milliseconds. */
const REFINE_AFTER = 180;
/** Playing that skips this share of a second's frames has fallen behind. */
const TOO_MANY_SKIPPED = 0.3;

const now = (): number => performance.timeOrigin + performance.now();
const sleep = (milliseconds: number): Promise<void> =>
  new Promise((resolve) => setTimeout(resolve, milliseconds));

/** Scope of a redrawing: a plan changes the canvases alone, not the master's own picture. */
const EVERYTHING = 'everything';
const CANVASES = 'canvases';
type DrawScope = typeof EVERYTHING | typeof CANVASES;

/** Frame on screen. */
interface DisplayedFrame {
  source: number;
  frame: number;
  piece: HeldPiece | null;
  /** True when it is the master's own picture, not its proxy's. */
  exact: boolean;
  picture: Picture;
}

/** Decodes, paces and draws what the page shows. It holds one decoded frame: the one on screen. */
export class PlayerEngine {
  private readonly sources = new PlayerSources();
  private plans: Record<string, RenderPlan[]> = {};
  private moved: Record<string, PlanSegment[][]> = {};
  private words: Record<string, (readonly PlanOverlay[])[]> = {};
  private sizes: Partial<Record<View, Size>> = {};
  private held: DisplayedFrame | null = null;
  /** While an end card plays, which of its frames is on screen: the picture that is held stands under it. */
  private card: number | null = null;
  /** Counts the frames that were to be held. */
  private holding = 0;
  /** Where what is shown at once is read, and where the master's own picture is read after it. */
  private readonly cursor = new FrameCursor();
  private readonly exactCursor = new FrameCursor();
  /** Grows with every order that ends what runs. */
  private generation = 0;
  private wanted: { source: number; frame: number } | null = null;
  private seeking = false;
  /** Drawing that follows once the waiting orders are taken; null where there is none. */
  private waits: DrawScope | null = null;
  private quality: Quality = 'full';
  private speed: Speed = 1;
  private readonly stage = new Stage(
    new StageWords(
      () => this.redrawSoon(CANVASES),
      (error) => this.tell({ type: 'failed', trouble: this.toPlayTrouble(error) }),
    ),
  );

  constructor(private readonly tell: (event: PlayerEvent, transfer?: Transferable[]) => void) {}

  /** Carries out one order of the page. */
  async obey(order: PlayerOrder): Promise<void> {
    try {
      switch (order.type) {
        case 'open':
          return await this.open(order.sources);
        case 'proxies':
          return await this.sources.findProxies();
        case 'plans':
          this.plans = order.plans;
          this.moved = {};
          this.words = {};
          return this.redrawSoon(CANVASES);
        case 'redraw':
          this.moved = order.segments;
          return this.redrawSoon(CANVASES);
        case 'words':
          this.words = order.overlays;
          return this.redrawSoon(CANVASES);
        case 'views':
          this.sizes = order.sizes;
          return this.redrawSoon(EVERYTHING);
        case 'show':
          this.generation += 1;
          this.wanted = { source: order.source, frame: order.frame };
          return await this.seek();
        case 'play':
          return await whilePlaying(() => this.play(order));
        case 'pause':
          this.generation += 1;
          return this.refineSoon();
      }
    } catch (error) {
      this.tell({ type: 'failed', trouble: this.toPlayTrouble(error) });
    }
  }

  private async open(sources: Source[]): Promise<void> {
    this.generation += 1;
    const shown = this.wanted ?? (this.held && { source: this.held.source, frame: this.held.frame });
    await this.dropCursors();
    this.tell({ type: 'ended', playId: null });
    await this.sources.open(sources);
    this.drop();
    if (!shown) return;
    this.wanted = shown;
    await this.seek();
  }

  /** Shows the frame that was asked for last; orders that come meanwhile replace it. */
  private async seek(): Promise<void> {
    if (this.seeking || this.sources.count === 0) return;
    this.seeking = true;
    try {
      while (this.wanted !== null) {
        const { source, frame } = this.wanted;
        this.wanted = null;
        const proxy = this.sources.proxy(source);
        await this.readTo(proxy ?? (await this.sources.master(source)), source, frame, proxy === null);
      }
    } finally {
      this.seeking = false;
    }
    this.refineSoon();
  }

  /** Once nothing else is wanted, the master's own picture takes the place of its proxy's. */
  private refineSoon(): void {
    const generation = this.generation;
    const { held } = this;
    if (!held || held.exact) return;
    setTimeout(() => {
      if (generation !== this.generation || this.seeking || this.held !== held) return;
      void this.refine(held).catch((error: unknown) =>
        this.tell({ type: 'failed', trouble: this.toPlayTrouble(error) }),
      );
    }, REFINE_AFTER);
  }

  private async refine({ source, frame }: DisplayedFrame): Promise<void> {
    const generation = this.generation;
    const isWanted = () => generation === this.generation;
    const reader = await this.sources.master(source);
    const sample = await this.exactCursor.read(reader, frame, isWanted);
    if (!sample) return;
    if (!isWanted()) return sample.close();
    await this.hold(source, frame, null, true, sample);
  }

  private async readTo(reader: MasterReader, source: number, frame: number, exact: boolean): Promise<void> {
    const { held } = this;
    if (held?.frame === frame && held.source === source && (held.exact || !exact))
      return this.redraw(EVERYTHING);
    const sample = await this.cursor.read(reader, frame);
    if (sample) await this.hold(source, frame, null, exact, sample);
  }

  private toPlayTrouble(error: unknown): Trouble {
    return toTrouble(error, 'damaged', { file: this.sources.toName(this.held?.source ?? 0) });
  }

  private async dropCursors(): Promise<void> {
    await Promise.all([this.cursor.drop(), this.exactCursor.drop()]);
  }

  private async play({
    playId,
    pieces,
    startsAt,
    quality,
    speed,
    card,
  }: Extract<PlayerOrder, { type: 'play' }>): Promise<void> {
    this.speed = speed;
    const generation = ++this.generation;
    const running = () => generation === this.generation;
    await this.dropCursors();
    if (quality !== 'auto') this.setQuality(quality);
    void this.playSound(playId, pieces, startsAt, running).catch((error: unknown) =>
      this.tell({ type: 'failed', trouble: this.toPlayTrouble(error) }),
    );
    let due = startsAt;
    for (const [index, piece] of pieces.entries()) {
      let stamp = piece.from;
      // A change of quality leaves off where it is and goes on with another reader.
      while (running() && stamp < piece.to) {
        const place = { playId, index };
        stamp = await this.playPiece({ ...piece, from: stamp }, place, due, quality === 'auto', running);
        due = startsAt + (this.secondsBefore(pieces, index, stamp) * 1000) / speed;
      }
      if (!running()) return;
    }
    const last = pieces[pieces.length - 1];
    if (card && last) await this.playCard(last.source, due, running);
    if (!running()) return;
    this.tell({ type: 'ended', playId });
    this.refineSoon();
  }

  /** Seconds from the start of playing to a frame of a piece. */
  private secondsBefore(pieces: SoundPiece[], index: number, frame: number): number {
    const long = ({ source, from }: SoundPiece, to: number) =>
      toSeconds(to - from, this.sources.source(source).rate);
    const before = pieces.slice(0, index).reduce((sum, piece) => sum + long(piece, piece.to), 0);
    return before + long(pieces[index] as SoundPiece, frame);
  }

  /** Plays a piece until its end, or until the quality changes. @returns the next frame to play. */
  private async playPiece(
    { source, from, to }: SoundPiece,
    place: HeldPiece,
    due: number,
    auto: boolean,
    running: () => boolean,
  ): Promise<number> {
    const proxy = this.quality === 'full' ? null : this.sources.proxy(source);
    const reader = proxy ?? (await this.sources.master(source));
    const { rate } = reader.source;
    const frameTime = 1000 / rateValue(rate) / this.speed;
    const window = Math.max(8, Math.round(rateValue(rate)));
    const stride = this.quality === 'quarter' ? 2 : 1;
    let shownAt = 0;
    let seen = 0;
    let skipped = 0;
    for await (const { frame, sample } of reader.frames(from, to)) {
      if (!running()) return to;
      if ((frame - from) % stride !== 0) continue;
      const late = now() - due - (frame - from) * frameTime;
      seen += 1;
      if (late > frameTime * stride && now() - shownAt < LONGEST_GAP) {
        skipped += 1;
        if (auto && seen >= window / 2 && skipped > seen * TOO_MANY_SKIPPED && this.coarser(source)) {
          return frame + 1;
        }
        continue;
      }
      if (seen >= window) [seen, skipped] = [0, 0];
      if (late < 0) await sleep(-late);
      if (!running()) return to;
      await this.hold(source, frame, place, proxy === null, sample.clone());
      shownAt = now();
    }
    return to;
  }

  /** Plays the end card that the plans have after a source's frames, over the picture that is held. */
  private async playCard(source: number, due: number, running: () => boolean): Promise<void> {
    const frames = Math.max(0, ...Object.values(this.plans).map((plans) => plans[source]?.cardFrames ?? 0));
    const frameTime = 1000 / rateValue(this.sources.source(source).rate) / this.speed;
    for (let n = 0; n < frames; n++) {
      const late = now() - due - n * frameTime;
      if (late > frameTime) continue;
      if (late < 0) await sleep(-late);
      if (!running()) break;
      this.card = n;
      this.redraw(CANVASES);
    }
    if (running()) await sleep(due + frames * frameTime - now());
    if (this.card === null) return;
    this.card = null;
    this.redraw(CANVASES);
  }

  /** Steps down once playing fell behind. @returns whether there was a step to take. */
  private coarser(source: number): boolean {
    if (this.quality === 'quarter' || !this.sources.proxy(source)) return false;
    this.setQuality(this.quality === 'full' ? 'half' : 'quarter');
    return true;
  }

  private setQuality(quality: Quality): void {
    if (quality === this.quality) return;
    this.quality = quality;
    this.tell({ type: 'quality', quality });
  }

  private async playSound(
    playId: number,
    pieces: SoundPiece[],
    startsAt: number,
    running: () => boolean,
  ): Promise<void> {
    let offset = 0;
    for (const { source, from, to } of pieces) {
      const reader = await this.sources.master(source);
      const { rate } = reader.source;
      const start = toSeconds(from, rate);
      const end = toSeconds(to, rate);
      for await (const sample of reader.sound(from, to) ?? []) {
        try {
          const into = reader.soundSeconds(sample) - start;
          const heard = () => ((now() - startsAt) / 1000) * this.speed;
          while (running() && offset + into > heard() + SOUND_AHEAD) await sleep(100);
          if (!running()) return;
          if (into + start >= end) break;
          this.tellSound(playId, sample, offset + into, end - start - into);
        } finally {
          sample.close();
        }
      }
      offset += end - start;
    }
  }

  /** @param room seconds until the piece ends: what is longer is cut off. */
  private tellSound(playId: number, sample: AudioSample, start: number, room: number): void {
    const count = Math.min(sample.numberOfFrames, Math.ceil(room * sample.sampleRate));
    if (count <= 0) return;
    const channels = samplePlanes(sample, 0, count).slice(0, 2);
    this.tell(
      { type: 'sound', playId, start, sampleRate: sample.sampleRate, channels },
      channels.map((channel) => channel.buffer),
    );
  }

  private async hold(
    source: number,
    frame: number,
    piece: HeldPiece | null,
    exact: boolean,
    sample: VideoSample,
  ): Promise<void> {
    const turn = ++this.holding;
    const picture = await toPreviewPicture(sample, this.sources.source(source), exact);
    // A frame that was asked for meanwhile is shown instead.
    if (turn !== this.holding) return picture.close();
    this.drop();
    this.held = { source, frame, piece, exact, picture };
    this.redraw(EVERYTHING);
  }

  private drop(): void {
    this.held?.picture.close();
    this.held = null;
    this.card = null;
  }

  /** Draws once after all orders that are waiting: a drag sends more plans than can be drawn. */
  private redrawSoon(what: DrawScope): void {
    const waited = this.waits !== null;
    this.waits = this.waits === EVERYTHING ? EVERYTHING : what;
    if (waited) return;
    setTimeout(() => {
      const drawn = this.waits ?? what;
      this.waits = null;
      this.redraw(drawn);
    });
  }

  /** Draws the held frame on the views that are on screen. */
  private redraw(what: DrawScope): void {
    if (!this.held) return;
    const { source, frame, piece, picture } = this.held;
    const pictures: Partial<Record<View, ImageBitmap>> = {};
    const { master, ...canvases } = this.sizes;
    const orientation = this.sources.source(source);
    if (master && what === EVERYTHING) pictures.master = this.stage.master(master, picture, orientation);
    for (const [view, size] of Object.entries(canvases) as [View, Size][]) {
      const plan = this.plans[view]?.[source];
      if (!plan) continue;
      const moved = withSegments(plan, this.moved[view]?.[source] ?? []);
      const shown = { ...moved, overlays: this.words[view]?.[source] ?? moved.overlays };
      const drawn = this.card === null ? frame : orientation.frames + this.card;
      pictures[view] = this.stage.canvas(view, size, shown, drawn, picture, orientation);
    }
    const transfer = Object.values(pictures).filter((picture) => picture !== undefined);
    this.tell({ type: 'frame', source, frame, piece, pictures }, transfer);
  }
}
