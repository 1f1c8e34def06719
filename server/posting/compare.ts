import { stat } from 'node:fs/promises';
import { summarizeLikeness } from '../../src/core/posting/likeness-summary';
import type { Comparison } from '../../src/core/posting/post-order';
import { OUTLET_CONTAINERS, safeInput } from '../programs/media-args';
import { probeIndex } from '../programs/probe';
import type { Limits, Programs } from '../programs/programs';

/** Limits of the program that compares two films. */
const LIMITS: Limits = { seconds: 1800, memory: 4e9, fileBytes: 64e6, outputBytes: Infinity };

/**
 * Holds what a viewer gets against what was sent, frame by frame, by SSIM of luma (Z. Wang et al., "Image quality
 * assessment: from error visibility to structural similarity", IEEE Transactions on Image Processing 13(4), 2004), as
 * ffmpeg measures it, at the size that was sent.
 * @throws ProgramError where one of them cannot be decoded.
 */
export async function compareFilms(
  programs: Programs,
  sent: string,
  viewed: string,
): Promise<Comparison | null> {
  const [was, is] = await Promise.all(
    [sent, viewed].map((file) => probeIndex(programs, file, OUTLET_CONTAINERS)),
  );
  const { width, height } = is?.video ?? {};
  if (!was?.video?.width || !was.video.height || !width || !height) return null;
  const scaled = `${was.video.width}:${was.video.height}`;
  const graph = `[0:v]format=yuv420p[a];[1:v]scale=${scaled}:flags=bicubic,format=yuv420p[b];[b][a]ssim=stats_file=-`;
  const scores: number[] = [];
  let rest = '';
  await programs.run(
    'ffmpeg',
    [
      ...[
        '-v',
        'error',
        '-nostdin',
        ...safeInput(OUTLET_CONTAINERS, sent),
        ...safeInput(OUTLET_CONTAINERS, viewed),
      ],
      ...['-filter_complex', graph, '-f', 'null', '-'],
    ],
    {
      limits: LIMITS,
      onOut(text) {
        const lines = (rest + text).split('\n');
        rest = lines.pop() ?? '';
        for (const line of lines) {
          const luma = /^n:\d+ Y:([\d.]+)/.exec(line)?.[1];
          if (luma !== undefined) scores.push(Number(luma));
        }
      },
    },
  );
  if (scores.length === 0) return null;
  const rate = was.seconds === null ? 30 : scores.length / was.seconds;
  const { size: bytes } = await stat(viewed);
  const size = { width: was.video.width, height: was.video.height };
  const length = was.seconds === null ? {} : { seconds: was.seconds };
  return {
    width,
    height,
    sent: size,
    bytes,
    ...length,
    frames: scores.length,
    ...summarizeLikeness(scores, rate),
  };
}

/** Extracts one frame of a film as PNG at a width. @throws ProgramError */
export async function extractPicture(
  programs: Programs,
  film: string,
  { frame, width, height, to }: { frame: number; width: number; height: number; to: string },
): Promise<void> {
  const pick = `select=eq(n\\,${frame}),scale=${width}:${height}:flags=bicubic:in_color_matrix=bt709:in_range=tv,format=rgb24`;
  const out = ['-frames:v', '1', '-f', 'image2', '-c:v', 'png', to];
  const args = ['-y', '-v', 'error', '-nostdin', ...safeInput(OUTLET_CONTAINERS, film), '-vf', pick, ...out];
  await programs.run('ffmpeg', args, { limits: LIMITS });
}
