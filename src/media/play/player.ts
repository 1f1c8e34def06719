import type { Source } from '@core/master/source';
import type { Size } from '@core/picture/size';
import type { PlanOverlay } from '@core/render/overlays';
import type { PlanSegment, RenderPlan } from '@core/render/plan';
import type { Trouble } from '@core/trouble/trouble';
import type { Piece, PlayerEvent, PlayerOrder, Quality, Speed, View } from './player-protocol';
import { workerUrls } from '../worker/worker-urls';

/** Time between asking to play and the first frame, in seconds: decoding needs a head start. */
const LEAD = 0.15;

/** What the player tells the page. */
export interface PlayerListener {
  onFrame(event: Extract<PlayerEvent, { type: 'frame' }>): void;
  onQuality(quality: Quality): void;
  onEnded(): void;
  onTrouble(trouble: Trouble): void;
}

/** The page's side of playing a master: the worker decodes and draws, this schedules the sound. */
export class Player {
  private readonly worker = new Worker(workerUrls.player, { type: 'module' });
  private sound: AudioContext | null = null;
  private soundStart = 0;
  private speed: Speed = 1;
  private sources = new Set<AudioBufferSourceNode>();

  constructor(
    sources: Source[],
    private readonly listener: PlayerListener,
  ) {
    this.worker.onmessage = ({ data }: MessageEvent<PlayerEvent>) => this.hear(data);
    this.worker.onmessageerror = () => listener.onTrouble({ code: 'worker-answer', values: {} });
    this.worker.onerror = ({ message }) =>
      listener.onTrouble({ code: 'worker-ended', values: { detail: message || 'no reason was given' } });
    this.open(sources);
  }

  /** A proxy was made: it is used from now on. */
  findProxies(): void {
    this.send({ type: 'proxies' });
  }

  /** Takes sources that changed: a repair, another master. */
  open(sources: Source[]): void {
    this.silence();
    this.send({ type: 'open', sources });
  }

  /** Hands over, by canvas and for each source, the plan to draw from; its output frame n must be frame n. */
  setPlans(plans: Record<string, RenderPlan[]>): void {
    this.send({ type: 'plans', plans });
  }

  /** Draws segments in the place of those of the plans, by canvas and source: what a hand moves. */
  redraw(segments: Record<string, PlanSegment[][]>): void {
    this.send({ type: 'redraw', segments });
  }

  /** Draws words in the place of those of the plans, by canvas and source: what a hand moves or writes. */
  showWords(overlays: Record<string, PlanOverlay[][]>): void {
    this.send({ type: 'words', overlays });
  }

  /** @param sizes in device pixels. */
  setViews(sizes: Partial<Record<View, Size>>): void {
    this.send({ type: 'views', sizes });
  }

  show(source: number, frame: number): void {
    this.silence();
    this.send({ type: 'show', source, frame });
  }

  /**
   * Plays pieces one after another, with sound, which is lower where it is slower.
   * @param card whether the end card of the plans follows.
   */
  play(pieces: Piece[], quality: Quality | 'auto', speed: Speed, card: boolean): void {
    this.silence();
    this.sound ??= new AudioContext();
    void this.sound.resume();
    this.soundStart = this.sound.currentTime + LEAD;
    const startsAt = performance.timeOrigin + performance.now() + LEAD * 1000;
    this.speed = speed;
    this.send({ type: 'play', pieces, startsAt, quality, speed, card });
  }

  pause(): void {
    this.silence();
    this.send({ type: 'pause' });
  }

  /** Ends the worker and the sound. */
  close(): void {
    this.silence();
    void this.sound?.close();
    this.worker.terminate();
  }

  private send(order: PlayerOrder): void {
    this.worker.postMessage(order);
  }

  private hear(event: PlayerEvent): void {
    switch (event.type) {
      case 'frame':
        return this.listener.onFrame(event);
      case 'sound':
        return this.schedule(event.start, event.sampleRate, event.channels);
      case 'quality':
        return this.listener.onQuality(event.quality);
      case 'ended':
        return this.listener.onEnded();
      case 'failed':
        return this.listener.onTrouble(event.trouble);
    }
  }

  private schedule(start: number, sampleRate: number, channels: Float32Array<ArrayBuffer>[]): void {
    const { sound } = this;
    const [first] = channels;
    if (!sound || !first?.length) return;
    const buffer = sound.createBuffer(channels.length, first.length, sampleRate);
    channels.forEach((channel, i) => buffer.copyToChannel(channel, i));
    const source = sound.createBufferSource();
    source.buffer = buffer;
    source.connect(sound.destination);
    const due = this.soundStart + start / this.speed;
    const missed = Math.max(0, sound.currentTime - due) * this.speed;
    if (missed >= buffer.duration) return;
    source.playbackRate.value = this.speed;
    source.start(Math.max(due, sound.currentTime), missed);
    this.sources.add(source);
    source.onended = () => this.sources.delete(source);
  }

  private silence(): void {
    for (const source of this.sources) source.stop();
    this.sources = new Set();
  }
}
