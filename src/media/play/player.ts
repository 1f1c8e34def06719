import type { Source } from '@core/master/source';
import type { Size } from '@core/picture/size';
import type { PlanOverlay } from '@core/render/overlays';
import type { PlanSegment, RenderPlan } from '@core/render/plan';
import type { Trouble } from '@core/trouble/trouble';
import type { SoundPiece, PlayerEvent, PlayerOrder, Quality, Speed, View } from './player-protocol';
import { workerTrouble } from '../worker/worker-trouble';
import { workerUrls } from '../worker/worker-urls';

/** Time between asking to play and the first frame, in seconds: decoding needs a head start. */
const LEAD = 0.15;

type SoundEvent = Extract<PlayerEvent, { type: 'sound' }>;
type FrameEvent = Extract<PlayerEvent, { type: 'frame' }>;

const now = (): number => performance.timeOrigin + performance.now();

function closePictures({ pictures }: FrameEvent): void {
  for (const picture of Object.values(pictures)) picture?.close();
}

/** Pieces of sound that wait for the device at most, the latest: more than the worker sends ahead. */
const MAX_WAITING = 200;

/** Callbacks of the player. */
export interface PlayerListener {
  onFrame(event: FrameEvent): void;
  onQuality(quality: Quality): void;
  onEnded(): void;
  onTrouble(trouble: Trouble): void;
}

/** The page's side of playing a master: the worker decodes and draws, this schedules the sound. */
export class Player {
  private readonly worker = new Worker(workerUrls.player, { type: 'module' });
  private sound: AudioContext | null = null;
  private speed: Speed = 1;
  /** The play that was asked for last. */
  private playId = 0;
  /** True when sound of it is still to be heard. */
  private isSounding = false;
  /** When its sound begins, on the clock of the sound; null until that runs: a device takes its time to wake. */
  private soundStart: number | null = null;
  /** Events that came before that. */
  private waiting: SoundEvent[] = [];
  private sources = new Set<AudioBufferSourceNode>();

  constructor(
    sources: Source[],
    private readonly listener: PlayerListener,
  ) {
    this.worker.onmessage = ({ data }: MessageEvent<PlayerEvent>) => this.hear(data);
    this.worker.onmessageerror = () => listener.onTrouble({ code: 'worker-answer', values: {} });
    this.worker.onerror = (event) => listener.onTrouble(workerTrouble(event).trouble);
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
  showWords(overlays: Record<string, (readonly PlanOverlay[])[]>): void {
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
  play(pieces: SoundPiece[], quality: Quality | 'auto', speed: Speed, card: boolean): void {
    this.silence();
    const sound = (this.sound ??= new AudioContext());
    const playId = ++this.playId;
    const soundsAt = now() + LEAD * 1000;
    // Wireless headphones are late by a quarter of a second: the picture waits for them. Not every browser knows.
    const latency: number = (sound as Partial<AudioContext>).outputLatency ?? 0;
    this.speed = speed;
    this.isSounding = true;
    void sound.resume().then(
      () => {
        if (this.isSounding && playId === this.playId) this.beginSound(sound, soundsAt);
      },
      // A device that does not wake plays nothing; the picture goes on.
      () => undefined,
    );
    const startsAt = soundsAt + latency * 1000;
    this.send({ type: 'play', playId, pieces, startsAt, quality, speed, card });
  }

  /** The clock of the sound runs: what came so far is heard when it is due by the page's clock. */
  private beginSound(sound: AudioContext, soundsAt: number): void {
    this.soundStart = sound.currentTime + (soundsAt - now()) / 1000;
    for (const event of this.waiting.splice(0)) this.schedule(event);
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
        if (event.piece && event.piece.playId !== this.playId) return closePictures(event);
        return this.listener.onFrame(event);
      case 'sound':
        return event.playId === this.playId ? this.schedule(event) : undefined;
      case 'quality':
        return this.listener.onQuality(event.quality);
      case 'ended':
        return event.playId === null || event.playId === this.playId ? this.listener.onEnded() : undefined;
      case 'failed':
        return this.listener.onTrouble(event.trouble);
    }
  }

  private schedule(event: SoundEvent): void {
    const { start, sampleRate, channels } = event;
    const { sound, soundStart } = this;
    const [first] = channels;
    if (!this.isSounding || !sound || !first?.length) return;
    if (soundStart === null) {
      this.waiting = [...this.waiting.slice(1 - MAX_WAITING), event];
      return;
    }
    const buffer = sound.createBuffer(channels.length, first.length, sampleRate);
    channels.forEach((channel, i) => buffer.copyToChannel(channel, i));
    const source = sound.createBufferSource();
    source.buffer = buffer;
    source.connect(sound.destination);
    const due = soundStart + start / this.speed;
    const missed = Math.max(0, sound.currentTime - due) * this.speed;
    if (missed >= buffer.duration) return;
    source.playbackRate.value = this.speed;
    source.start(Math.max(due, sound.currentTime), missed);
    this.sources.add(source);
    source.onended = () => this.sources.delete(source);
  }

  private silence(): void {
    this.isSounding = false;
    this.soundStart = null;
    this.waiting = [];
    for (const source of this.sources) source.stop();
    this.sources = new Set();
  }
}
