import { z } from 'zod';
import { bytesLabel } from '../figures/figures';
import { codecName } from '../master/master';

/** Everything that can go wrong with a file, an export or a post. */
export const TROUBLE_CODES = [
  'empty-file',
  'not-media',
  'cut-off',
  'no-video',
  'codec-missing',
  'no-frames',
  'damaged',
  'pixel-format',
  'too-small',
  'storage-full',
  'bring-in-failed',
  'master-gone',
  'wrong-file',
  'encoder-missing',
  'export-failed',
  'worker-ended',
  'server-down',
  'post-failed',
  'conversion-failed',
  'save-failed',
  'cancelled',
] as const;
export type TroubleCode = (typeof TROUBLE_CODES)[number];

/** What went wrong, as data: a code, and the values that its words need. */
export const troubleSchema = z.object({
  code: z.enum(TROUBLE_CODES),
  values: z.record(z.string(), z.union([z.string(), z.number()])),
});
export type Trouble = z.infer<typeof troubleSchema>;

/** A trouble on its way up. */
export class TroubleError extends Error {
  readonly trouble: Trouble;

  constructor(code: TroubleCode, values: Trouble['values'] = {}) {
    super(`${code} ${JSON.stringify(values)}`);
    this.name = 'TroubleError';
    this.trouble = { code, values };
  }
}

/**
 * Any thrown value as a trouble; what has no code of its own becomes `fallback` with its message as detail, and
 * with what else its words need.
 */
export function troubleOf(error: unknown, fallback: TroubleCode, more: Trouble['values'] = {}): Trouble {
  if (error instanceof TroubleError) return error.trouble;
  return {
    code: fallback,
    values: { ...more, detail: error instanceof Error ? error.message : String(error) },
  };
}

type Words = (values: Record<string, string | number>) => [what: string, todo: string];

const WORDS: Record<TroubleCode, Words> = {
  'empty-file': (v) => [
    `${v.file} is empty.`,
    'Export it again from the editing program, or pick another file.',
  ],
  'not-media': (v) => [
    `${v.file} is not a video file that can be read here, whatever its name says.`,
    'Bring in MP4, MOV, WebM or MKV.',
  ],
  'cut-off': (v) => [
    `${v.file} ends before its picture does: it was cut off while it was copied or saved.`,
    'Copy it again from where it came from, or export it again.',
  ],
  'no-video': (v) => [
    `${v.file} has sound but no picture.`,
    'Bring in the edit itself, exported with its picture.',
  ],
  'codec-missing': (v) => [
    `This browser cannot decode ${codecName(String(v.codec))}, which the picture of ${v.file} is coded in.`,
    'Export the edit as H.264 in MP4, or as VP9 in WebM, and bring that in.',
  ],
  'no-frames': (v) => [`${v.file} has a video track without a single frame.`, 'Export it again.'],
  damaged: (v) => [
    `${v.file} could not be decoded: its picture data is damaged (${v.detail}).`,
    'Export it again, or copy it again from where it came from.',
  ],
  'pixel-format': (v) => [
    `The picture is stored as ${v.format}, which cannot be cropped without loss here.`,
    'Export the edit as H.264, 4:2:0, and bring that in.',
  ],
  'too-small': (v) => [
    `${v.file} is ${v.width}×${v.height} pixels: too small to make a clip from.`,
    'Bring in the edit at its full size.',
  ],
  'storage-full': (v) => [
    `There is no room: ${bytesLabel(Number(v.need))} are needed, and this browser grants ` +
      (v.free === undefined ? 'no more.' : `${bytesLabel(Number(v.free))}.`),
    'Delete jobs or exports that are done, or free space on this device.',
  ],
  'bring-in-failed': (v) => [
    `${v.file} could not be copied into this browser (${v.detail}).`,
    'Bring it in again. If that fails too, delete jobs that are done to make room.',
  ],
  'master-gone': (v) => [
    `The bytes of ${v.file} are no longer in this browser's storage.`,
    'Bring the same file in again: the job keeps everything you made and takes it up.',
  ],
  'wrong-file': (v) => [`${v.file} is another file than this job's master.`, `Pick ${v.wanted}.`],
  'encoder-missing': (v) => [
    `This browser cannot encode H.264 at ${v.width}×${v.height}.`,
    'Use a browser with an H.264 encoder, or choose a smaller canvas.',
  ],
  'export-failed': (v) => [`The export stopped: ${v.detail}.`, 'Start it again. Nothing of it was kept.'],
  'worker-ended': (v) => [
    `The browser ended the work: ${v.detail}.`,
    'Start it again. If it ends again, close other tabs: memory may be short.',
  ],
  'server-down': (v) => [
    `${v.outlet} does not answer.`,
    'Your clip and words are kept. Check the connection and post again; the upload goes on where it stopped.',
  ],
  'post-failed': (v) => [`${v.outlet} answered with an error: ${v.detail}.`, 'Post again in a moment.'],
  'conversion-failed': (v) => [
    `The server could not convert it: ${v.detail}.`,
    'Export the edit as H.264 in MP4 from the editing program, and bring that in.',
  ],
  'save-failed': (v) => [
    `The job could not be saved in this browser: ${v.detail}.`,
    'Delete jobs that are done to make room. Until then a reload loses the last change.',
  ],
  cancelled: () => ['Cancelled.', 'Nothing of it was kept.'],
};

/** A trouble in words: what happened and why, and what to do. */
export function troubleWords(trouble: Trouble): { what: string; todo: string } {
  const [what, todo] = WORDS[trouble.code](trouble.values);
  return { what, todo };
}
