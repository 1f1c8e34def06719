import { rename, rm, stat } from 'node:fs/promises';
import type { Placement } from '../../../src/core/outlets/placement';
import type { Size } from '../../../src/core/picture/size';
import { findRendition } from '../../../src/core/trial/rate-trial';
import { filmInput, OUTLET_CONTAINERS } from '../../programs/media-args';
import type { Limits, Programs } from '../../programs/programs';
import type { ViewedFile } from './taken-posts';

/** Limits of the program that compresses a clip. */
const LIMITS: Limits = { seconds: 3600, memory: 4e9, fileBytes: 4e9, outputBytes: 1e6 };
/** Seconds between key frames, bits of the sound, and how far over its rate the picture may go (common practice, no source). */
const GROUP = 2;
const SOUND_BITS = 96_000;
const OVER = 1.5;

/**
 * Compresses a clip as an outlet does before it shows it: to the rung of its ladder that fits, the quick way.
 * @param to where the result goes; it is there only once it is whole. @throws ProgramError
 */
export async function compressClip(
  programs: Programs,
  from: string,
  to: string,
  size: Size,
  placement: Placement,
): Promise<ViewedFile> {
  const rung = findRendition(placement, size) ?? { ...size, bits: 4_000_000 };
  // A ladder that is higher than wide is turned for a clip that is not, and the other way round.
  const share = Math.min(1, Math.sqrt((rung.width * rung.height) / (size.width * size.height)));
  const [width, height] = [even(size.width * share), even(size.height * share)] as const;
  const part = `${to}.part`;
  const rates = ['-b:v', rung.bits, '-maxrate', rung.bits * OVER, '-bufsize', rung.bits * OVER * 2].map(
    String,
  );
  await programs.run(
    'ffmpeg',
    [
      ...filmInput(OUTLET_CONTAINERS, from),
      ...[
        '-vf',
        `scale=${width}:${height}:flags=bicubic,format=yuv420p`,
        '-c:v',
        'libx264',
        '-preset',
        'veryfast',
      ],
      ...[
        ...rates,
        '-force_key_frames',
        `expr:gte(t,n_forced*${GROUP})`,
        '-c:a',
        'aac',
        '-b:a',
        String(SOUND_BITS),
      ],
      ...['-movflags', '+faststart', '-f', 'mp4', part],
    ],
    { limits: LIMITS },
  );
  const { size: bytes } = await stat(part);
  await rm(to, { force: true });
  await rename(part, to);
  return { width, height, bytes };
}

const even = (value: number): number => 2 * Math.round(value / 2);
