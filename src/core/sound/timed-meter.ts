import type { Planes } from './channels';
import { LoudnessMeter } from './loudness';

/** Loudness by the time from the first frame on: where there is no sound, silence is measured. */
export class TimedMeter {
  private readonly meter: LoudnessMeter;
  private samples = 0;

  constructor(
    private readonly sampleRate: number,
    private readonly channels: number,
  ) {
    this.meter = new LoudnessMeter(sampleRate, channels);
  }

  /** @param at place of the first sample. */
  push(planes: Planes, at: number): void {
    while (this.samples < at) {
      const gap = Math.min(this.sampleRate, at - this.samples);
      this.meter.push(Array.from({ length: this.channels }, () => new Float32Array(gap)));
      this.samples += gap;
    }
    this.meter.push(planes);
    this.samples += planes[0]?.length ?? 0;
  }

  /** Weighted power of each tenth of a second. */
  steps(): readonly number[] {
    return this.meter.steps();
  }

  /** Short-term loudness (3 s) from each tenth of a second on, in LUFS. */
  shortTerm(): number[] {
    return this.meter.shortTerm();
  }
}
