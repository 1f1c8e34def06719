import { spawn } from 'node:child_process';
import { stat } from 'node:fs/promises';
import { ALL_FORMATS, EncodedPacketSink, FilePathSource, Input } from 'mediabunny';
import type { Borders } from '../../src/core/picture/borders';
import type { SentFile } from '../../src/core/outlets/judge';
import { detectRate } from '../../src/core/time/detect-rate';

/** Reads a sent file for itself. @throws when it is no video file. */
export async function inspectFile(path: string): Promise<SentFile> {
  const input = new Input({ source: new FilePathSource(path), formats: ALL_FORMATS });
  try {
    const video = await input.getPrimaryVideoTrack();
    if (!video) throw new Error('the file has no picture');
    const stamps: number[] = [];
    let lastDuration = 0;
    for await (const packet of new EncodedPacketSink(video).packets(undefined, undefined, {
      metadataOnly: true,
    })) {
      stamps.push(packet.timestamp);
      lastDuration = packet.duration;
    }
    const { rate, frames } = detectRate(stamps, lastDuration);
    const audio = await input.getPrimaryAudioTrack();
    const size = { width: await video.getDisplayWidth(), height: await video.getDisplayHeight() };
    return {
      ...size,
      rate,
      frames,
      bytes: (await stat(path)).size,
      videoCodec: (await video.getCodec()) ?? 'unknown',
      audio: audio
        ? { codec: (await audio.getCodec()) ?? 'unknown', sampleRate: await audio.getSampleRate() }
        : null,
      borders: await findBorders(path, size),
    };
  } finally {
    input.dispose();
  }
}

/** A search of key frames takes this long at most, in milliseconds. */
const SEARCH_LIMIT = 60_000;

/** Black borders by ffmpeg's cropdetect over the key frames; null when this machine has no ffmpeg. */
async function findBorders(path: string, size: { width: number; height: number }): Promise<Borders | null> {
  const filter = 'cropdetect=limit=24:round=2:skip=0:reset=0';
  const args = ['-hide_banner', '-skip_frame', 'nokey', '-i', path, '-an', '-vf', filter, '-f', 'null', '-'];
  const log = await new Promise<string | null>((resolve) => {
    const search = spawn('ffmpeg', args, { stdio: ['ignore', 'ignore', 'pipe'], timeout: SEARCH_LIMIT });
    let text = '';
    search.stderr.on('data', (piece: Buffer) => (text = (text + piece.toString()).slice(-20_000)));
    search.on('error', () => resolve(null));
    search.on('close', () => resolve(text));
  });
  const found = [...(log ?? '').matchAll(/crop=(\d+):(\d+):(\d+):(\d+)/g)].pop();
  if (!found) return null;
  const [width, height, left, top] = found.slice(1).map(Number) as [number, number, number, number];
  return { left, top, right: size.width - left - width, bottom: size.height - top - height };
}
