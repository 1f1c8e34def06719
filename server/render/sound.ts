import type { AudioEncodeSettings } from '../../src/core/render/encode-settings';
import { TroubleError } from '../../src/core/trouble/trouble';
import { clipSound } from '../../src/render/clip-sound';
import { loudnessGain } from '../../src/render/loudness-gain';
import { EncodeRun } from './encode';
import { Films } from './films';
import type { RenderOrder } from './order';

/** Encoders of sound. */
const CODECS: Record<AudioEncodeSettings['codec'], (bits: number) => string[]> = {
  aac: (bits) => ['-c:a', 'aac', '-b:a', String(bits)],
  opus: (bits) => ['-c:a', 'libopus', '-b:a', String(bits)],
  // Older ffmpeg calls FLAC in MP4 experimental.
  flac: () => ['-c:a', 'flac', '-sample_fmt', 's32', '-bits_per_raw_sample', '24', '-strict', '-2'],
};

/** Encodes the sound of a clip into a file of its own. */
export async function makeSound(
  order: RenderOrder,
  sound: AudioEncodeSettings,
  file: string,
  signal: AbortSignal,
): Promise<void> {
  const films = new Films(order);
  const { sampleRate, channels, bits, codec } = sound;
  const encoder = new EncodeRun([
    ...['-f', 'f32le', '-ar', String(sampleRate), '-ac', String(channels), '-i', 'pipe:0'],
    ...CODECS[codec](bits),
    ...['-f', codec === 'opus' ? 'matroska' : 'mp4', file],
  ]);
  try {
    const gain = await loudnessGain(films.of, order.plan, sound, signal);
    for await (const planes of clipSound(films.of, order.plan, { ...sound, gain })) {
      if (signal.aborted) throw new TroubleError('cancelled');
      const length = planes[0]?.length ?? 0;
      const woven = new Float32Array(length * channels);
      planes.forEach((plane, channel) => {
        for (let i = 0; i < length; i++) woven[i * channels + channel] = plane[i] as number;
      });
      await encoder.write(new Uint8Array(woven.buffer));
    }
    await encoder.finish();
  } catch (error) {
    encoder.stop();
    throw error;
  } finally {
    films.close();
  }
}
