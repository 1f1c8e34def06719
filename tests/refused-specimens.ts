import { AAC, cutOff, encoded, H264, make, plain, rewrap, scribbled } from './make-specimen';
import type { Specimen } from './media-zoo';

/**
 * Files that cannot come in, each with the words of its refusal.
 * @param base a whole file. @param fast one whose index stands before its data.
 */
export function refusedSpecimens(base: string, fast: string): Specimen[] {
  const rows: Specimen[] = [
    {
      name: 'hevc',
      file: make('hevc', {
        output: encoded('libx265', ['-preset', 'ultrafast', '-x265-params', 'log-level=none']),
      }),
      how: 'H.265 in MP4',
      refused: /cannot decode H\.265/,
    },
    {
      name: 'mpeg4',
      file: make('mpeg4', { output: encoded('mpeg4') }),
      how: 'MPEG-4 Part 2',
      refused: /cannot decode/,
    },
    {
      name: 'editing-codec',
      file: make('editing', { ext: 'mov', output: ['-c:v', 'prores_ks', '-profile:v', '0', ...AAC] }),
      how: 'a 4:2:2 editing codec in MOV',
      refused: /cannot decode/,
    },
    {
      name: 'ac3-sound',
      file: make('ac3', { ext: 'mkv', output: [...H264, '-c:a', 'ac3'] }),
      how: 'AC-3 sound in MKV',
      refused: /cannot decode AC-3, which the sound/,
    },
    {
      name: 'dts-sound',
      file: make('dts', { ext: 'mkv', output: [...H264, '-c:a', 'dca', '-strict', '-2'] }),
      how: 'DTS sound in MKV',
      refused: /cannot decode DTS, which the sound/,
    },
    {
      name: 'avi',
      file: make('avi', { ext: 'avi', output: [...H264, ...AAC] }),
      how: 'AVI',
      refused: /not a video file that can be read/,
    },
    {
      name: 'no-index',
      file: cutOff(base, 'no-index', 0.6),
      how: 'cut off before its index',
      refused: /cut off/,
    },
    { name: 'cut-off', file: cutOff(fast, 'cut-off', 0.55), how: 'cut off in its data', refused: /cut off/ },
    {
      name: 'damaged',
      file: scribbled(fast, 'damaged'),
      how: 'data overwritten',
      refused: /damaged|could not be decoded/,
    },
    {
      name: 'sound-only',
      file: rewrap(base, 'sound-only', 'mp4', ['-vn']),
      how: 'sound without picture',
      refused: /no picture/,
    },
    { name: 'empty', file: plain('empty.mp4', ''), how: 'no bytes', refused: /is empty/ },
    {
      name: 'text',
      file: plain('text.mp4', 'this is no film\n'.repeat(40)),
      how: 'text named .mp4',
      refused: /not a video file/,
    },
    { name: 'tiny', file: make('tiny', { size: '8x8' }), how: '8×8', refused: /too small/ },
  ];
  return rows;
}
