import { AudioSample, type AudioSampleSource } from 'mediabunny';
import type { RenderPlan } from '@core/render/plan';
import { masterRanges } from '@core/render/plan';
import { exportSampleRate } from '@core/sound/sound';
import { samplesBefore } from '@core/time/frame-rate';
import type { MasterReader } from './master-reader';

/** Longest piece of silence written at once, in samples. */
const SILENCE_PIECE = 4096;

/**
 * Samples that the AAC encoder puts before the first (initial_padding of FFmpeg's native encoder). The track starts
 * that much before zero, so that the file's edit list cuts them away again.
 */
const ENCODER_DELAY = 1024;

/**
 * Cuts a master's sound to a plan, to the sample, and hands it to an encoder. Output sample counts follow the
 * frames exactly; where the master's sound starts late, ends early or has holes, silence fills in.
 */
export async function* cutSound(
  reader: MasterReader,
  plan: RenderPlan,
  target: AudioSampleSource,
): AsyncGenerator<number, void, undefined> {
  const sampleRate = reader.master.audio?.sampleRate ?? 0;
  const channels = reader.master.audio?.channels ?? 0;
  const delay = ENCODER_DELAY / exportSampleRate(sampleRate);
  let frame = 0;
  for (const range of masterRanges(plan)) {
    const start = samplesBefore(frame, plan.rate, sampleRate);
    frame += range.out - range.in;
    const end = samplesBefore(frame, plan.rate, sampleRate);
    const shift = start - samplesBefore(range.in, plan.rate, sampleRate);
    const put = (sample: AudioSample, at: number) => {
      sample.setTimestamp(at / sampleRate - delay);
      return target.add(sample).finally(() => sample.close());
    };
    let at = start;
    const fillTo = async (to: number) => {
      while (at < to) {
        const frames = Math.min(SILENCE_PIECE, to - at);
        await put(silence(frames, channels, sampleRate), at);
        at += frames;
      }
    };
    for await (const sample of reader.sound(range.in, range.out) ?? []) {
      try {
        const first = Math.round(reader.soundSeconds(sample) * sampleRate) + shift;
        const from = Math.max(at, first);
        const to = Math.min(end, first + sample.numberOfFrames);
        if (to <= from) continue;
        await fillTo(from);
        await put(sample.trim(from - first, to - first), from);
        at = to;
      } finally {
        sample.close();
      }
      yield at / sampleRate;
    }
    await fillTo(end);
    yield end / sampleRate;
  }
}

function silence(frames: number, channels: number, sampleRate: number): AudioSample {
  const data = new Float32Array(frames * channels);
  return new AudioSample({ data, format: 'f32', numberOfChannels: channels, sampleRate, timestamp: 0 });
}
