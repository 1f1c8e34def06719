import { toSeconds } from '@core/time/frame-rate';
import type { Source } from '@core/master/source';
import { meanDistance, type Grey } from '@core/pass/grey';
import { LiveAreaFinder } from '@core/pass/live-area-finder';
import type { FoundShot, AnalysisResult } from '@core/pass/pass';
import { ShotFinder } from '@core/pass/shot-finder';
import type { StoredRect } from '@core/picture/size';
import type { FrameMeasurements } from './lane-protocol';

/** Field orders that must have been seen before one is believed. */
const MIN_ORDERS = 3;

/** Gathers what was seen of a whole master, frame by frame in order: shots, live area, combing, movement. */
export class PassFindings {
  private readonly shots = new ShotFinder();
  private live: LiveAreaFinder | null = null;
  private before: Grey | null = null;
  private looked = 0;
  private combed = 0;
  private readonly orders: number[] = [];
  private readonly numbers: number[] = [];
  private readonly motion: { sum: number; count: number }[] = [];

  constructor(private readonly source: Source) {}

  push({ frame, grey, bright, combs, order }: FrameMeasurements): void {
    this.numbers.push(frame);
    this.shots.push(grey);
    this.addMovement(frame, this.before ? meanDistance(this.before, grey) : 0);
    this.before = grey;
    if (bright) {
      this.live ??= new LiveAreaFinder({ width: bright.columns.length, height: bright.rows.length });
      this.live.push(frame, bright);
    }
    if (combs !== null) this.looked += 1;
    if (combs) this.combed += 1;
    if (order !== null) this.orders.push(order);
  }

  finish(): Pick<AnalysisResult, 'shots' | 'live' | 'liveConfidence' | 'combed' | 'topFirst' | 'motion'> {
    const whole = this.live?.whole() ?? { live: null, confidence: 0 };
    const found = [{ frame: 0, start: null }, ...this.shots.finish()];
    const toNumber = (n: number) => this.numbers[n] ?? this.source.frames;
    const shots = found.map(({ frame, start }, i): FoundShot => {
      const own = this.live?.between(toNumber(frame), toNumber(found[i + 1]?.frame ?? Infinity));
      const differs = own?.live && !(whole.live && near(own.live, whole.live));
      return { frame: toNumber(frame), start, live: differs ? own.live : null };
    });
    return {
      shots,
      live: whole.live,
      liveConfidence: whole.confidence,
      combed: this.looked === 0 ? 0 : this.combed / this.looked,
      topFirst: this.topFirst(),
      motion: this.motion.map(({ sum, count }) => sum / Math.max(1, count)),
    };
  }

  private topFirst(): boolean | null {
    const { length } = this.orders;
    const firsts = this.orders.filter((order) => order > 1).length;
    const sure = length >= MIN_ORDERS && Math.abs(firsts / length - 0.5) > 0.2;
    return sure ? firsts * 2 > length : null;
  }

  private addMovement(frame: number, movement: number): void {
    const second = Math.floor(toSeconds(frame, this.source.rate));
    const slot = (this.motion[second] ??= { sum: 0, count: 0 });
    slot.sum += movement;
    slot.count += 1;
  }
}

const near = (a: StoredRect, b: StoredRect): boolean =>
  Math.max(
    Math.abs(a.x - b.x),
    Math.abs(a.y - b.y),
    Math.abs(a.width - b.width),
    Math.abs(a.height - b.height),
  ) < 0.004;
