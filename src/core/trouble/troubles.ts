import { z } from 'zod';
import { measure } from '../figures/bounded';
import { CONVERSION_FAULTS, type ConversionFault } from '../convert/protocol';
import { RENDER_FAULTS, type RenderFault } from '../render/render-faults';
import { bytesLabel } from '../figures/figures';
import { codecName } from '../master/master';

/** Words of a trouble: what happened and why, and what to do. */
type Words = readonly [what: string, todo: string];

/** Declares a trouble: the values that its words need, and the words. */
const trouble = <Shape extends z.ZodRawShape>(
  values: Shape,
  words: (values: z.infer<z.ZodObject<Shape>>) => Words,
) => ({ values: z.object(values), words });

const text = z.string().min(1);
/** A sound track that could be taken instead. */
const soundChoice = z.object({ track: measure(), codec: z.string(), channels: measure() });
const number = measure();

/** Actions that a server was asked for when it failed. */
const FAILED_ACTIONS = [
  'post',
  'convert',
  'demo',
  'follow',
  'speech',
  'fonts',
  'render',
  'accounts',
  'hand-off',
  'chat',
] as const;
export type FailedAction = (typeof FAILED_ACTIONS)[number];
const asked = { who: text, errand: z.enum(FAILED_ACTIONS) };

/** Words on what is safe and how to go on, by the action that failed. */
const GO_ON: Record<FailedAction, string> = {
  post: 'Your clip and words are kept. Try again; the upload goes on where it stopped.',
  convert: 'Your file is as it was. Convert it again; the upload goes on where it stopped.',
  demo: 'Open the demo again in a moment.',
  follow: 'The subject finder is downloaded on first use. Follow again in a moment.',
  speech: 'What finds speech is loaded from it the first time. Look for speech again in a moment.',
  render: 'What is made so far is kept. Try again; it goes on where it stopped.',
  accounts: 'Nothing was changed. Try again in a moment.',
  'hand-off': 'The file is as it was. Offer it again; the upload goes on where it stopped.',
  chat: 'The file is as it was. Send it again.',
  fonts: 'Fonts are loaded from it the first time they are used. Try again in a moment.',
};

/** Why a server did not do what it was asked. */
const REFUSALS = ['busy', 'no-room', 'too-large', 'gone', 'no-ffmpeg', 'fault'] as const;
export type HttpRefusal = (typeof REFUSALS)[number];
const RENDER_WORDS: Record<RenderFault, string> = {
  damaged: 'the master cannot be decoded to its end',
  'no-room': 'it has no room for it',
  broken: 'its encoder failed',
  'ended-server': 'it ended several times over this one',
};
const REFUSAL_WORDS: Record<HttpRefusal, string> = {
  busy: 'has too much to do right now',
  'no-room': 'has no room for the file',
  'too-large': 'takes no file as large as this one',
  gone: 'no longer has what was sent to it',
  'no-ffmpeg': 'cannot look at films: it has no ffmpeg',
  fault: 'failed on its own side',
};

const FAULT_WORDS: Record<ConversionFault, string> = {
  unreadable: 'ffmpeg there cannot read it either',
  'cut-off': 'the file ends before its picture does',
  'no-picture': 'it has no picture',
  'too-slow': 'it took too long',
  'no-room': 'the server has no room for the copy',
  broken: 'the copy was not whole when it was read back',
  busy: 'the server has too much to do right now',
};

/** Everything that can go wrong with a file, an export or a post. */
export const TROUBLES = {
  'empty-file': trouble({ file: text }, (v) => [
    `${v.file} is empty.`,
    'Export it again from the editing program, or pick another file.',
  ]),
  'not-media': trouble({ file: text }, (v) => [
    `${v.file} is not a video file that can be read here, whatever its name says.`,
    'Bring in MP4, MOV, WebM or MKV.',
  ]),
  'cut-off': trouble({ file: text }, (v) => [
    `${v.file} ends before its picture does: it was cut off while it was copied or saved.`,
    'Copy it again from where it came from, or export it again.',
  ]),
  'no-video': trouble({ file: text }, (v) => [
    `${v.file} has sound but no picture.`,
    'Bring in the edit itself, exported with its picture.',
  ]),
  'codec-missing': trouble({ file: text, codec: text }, (v) => [
    `This browser cannot decode ${codecName(v.codec)}, which the picture of ${v.file} is coded in.`,
    'Export the edit as H.264 in MP4, or as VP9 in WebM, and bring that in.',
  ]),
  'sound-missing': trouble({ file: text, codec: text, others: z.array(soundChoice) }, (v) => [
    `This browser cannot decode ${codecName(v.codec)}, which the sound of ${v.file} is coded in.`,
    (v.others.length > 0
      ? 'Take another of its sound tracks, or continue without sound. '
      : 'Continue without sound. ') + 'To keep this sound, export the edit with AAC and bring that in.',
  ]),
  'no-frames': trouble({ file: text }, (v) => [
    `${v.file} has a video track without a single frame.`,
    'Export it again.',
  ]),
  damaged: trouble({ file: text, detail: text }, (v) => [
    `${v.file} could not be decoded: its picture data is damaged (${v.detail}).`,
    'Export it again, or copy it again from where it came from.',
  ]),
  'pixel-format': trouble({ format: text }, (v) => [
    `The picture is stored as ${v.format}, which cannot be cropped without loss here.`,
    'Export the edit as H.264, 4:2:0, and bring that in.',
  ]),
  'range-clipped': trouble({ file: text }, (v) => [
    `The picture of ${v.file} uses the full range of values, and this browser cuts off the darkest and the lightest.`,
    'Bring it in with another browser, or export the edit in limited range.',
  ]),
  'rgb-planes': trouble({ file: text }, (v) => [
    `The picture of ${v.file} is stored as red, green and blue, which cannot be read here.`,
    'Export the edit as H.264, 4:2:0, and bring that in.',
  ]),
  'unreadable-file': trouble({ file: text }, (v) => [
    `${v.file} cannot be read: it may lie in a cloud, or was moved or removed meanwhile.`,
    'Let this device download it whole, then choose it again.',
  ]),
  'absurd-fact': trouble({ file: text, fact: text }, (v) => [
    `${v.file} says of itself what no film has (${v.fact}).`,
    'Export it again from the program that made it, or take another file.',
  ]),
  'too-small': trouble({ file: text, width: number, height: number }, (v) => [
    `${v.file} is ${v.width}×${v.height} pixels: too small to make a clip from.`,
    'Bring in the edit at its full size.',
  ]),
  'storage-full': trouble({ need: number, free: number.nullable() }, (v) => [
    `There is not enough room: ${bytesLabel(v.need)} is needed, and this browser allows ` +
      (v.free === null ? 'no more.' : `${bytesLabel(v.free)}.`),
    'Delete jobs or exports that are done, or free space on this device.',
  ]),
  'bring-in-failed': trouble({ file: text, detail: text }, (v) => [
    `${v.file} could not be copied into this browser (${v.detail}).`,
    'Bring it in again. If that fails too, delete jobs that are done to make room.',
  ]),
  'master-gone': trouble({ file: text }, (v) => [
    `${v.file} is no longer in this browser's storage.`,
    'Bring the same file in again: the job keeps everything you made and goes on with it.',
  ]),
  'wrong-file': trouble({ file: text, wanted: text }, (v) => [
    `${v.file} is another file than this job's master.`,
    `Pick ${v.wanted}.`,
  ]),
  'encoder-missing': trouble({ width: number, height: number }, (v) => [
    `This browser cannot encode ${v.width}×${v.height} in the way that was chosen.`,
    'Choose another format or a smaller canvas, or use a browser that has the encoder.',
  ]),
  'export-failed': trouble({ detail: text }, (v) => [
    `The export stopped: ${v.detail}.`,
    'Try again: it goes on from what is whole.',
  ]),
  'export-gone': trouble({ file: text }, (v) => [
    `${v.file} is no longer in this browser's storage.`,
    'Export the clip again.',
  ]),
  'worker-ended': trouble({ detail: text }, (v) => [
    `The browser ended the work: ${v.detail}.`,
    'Start it again. If it ends again, close other tabs: memory may be short.',
  ]),
  'outlet-unknown': trouble({ outlet: text }, (v) => [
    `The server knows no way to ${v.outlet}.`,
    'A rule sheet says what an outlet takes, not where it is. Whoever runs the server names its address (docs/outlets.md). Files for it can be exported and saved all the same.',
  ]),
  'worker-code': trouble({ detail: text }, (v) => [
    `The code for this could not be loaded: ${v.detail}.`,
    'Check the connection, reload the page, and start it again.',
  ]),
  'worker-answer': trouble({}, () => [
    'The worker answered in a way that this page does not understand.',
    'Reload the page, so that both are of one version, and start it again.',
  ]),
  'server-down': trouble(asked, (v) => [
    `${v.who} does not answer.`,
    `Check the connection. ${GO_ON[v.errand]}`,
  ]),
  'server-slow': trouble({ ...asked, seconds: number }, (v) => [
    `${v.who} did not answer within ${v.seconds} seconds.`,
    GO_ON[v.errand],
  ]),
  'server-answer': trouble(asked, (v) => [
    `${v.who} answered in a way that is not understood.`,
    `It may be of another version. ${GO_ON[v.errand]}`,
  ]),
  'server-refused': trouble({ ...asked, why: z.enum(REFUSALS) }, (v) => [
    `${v.who} ${REFUSAL_WORDS[v.why]}.`,
    GO_ON[v.errand],
  ]),
  'render-failed': trouble({ fault: z.enum(RENDER_FAULTS) }, (v) => [
    `The server could not make the file: ${RENDER_WORDS[v.fault]}.`,
    'Try again, or have it made in this browser.',
  ]),
  'conversion-failed': trouble({ fault: z.enum(CONVERSION_FAULTS) }, (v) => [
    `The server could not convert it: ${FAULT_WORDS[v.fault]}.`,
    'Export the edit as H.264 in MP4 from the editing program, and bring that in.',
  ]),
  'save-failed': trouble({ detail: text }, (v) => [
    `The job could not be saved in this browser: ${v.detail}.`,
    'Delete jobs that are done to make room. Until then a reload loses the last change.',
  ]),
  'setting-unsaved': trouble({ what: text, detail: text }, (v) => [
    `Your ${v.what} could not be stored in this browser: ${v.detail}.`,
    'Delete jobs that are done to make room, then try again. Until then a reload loses the last change.',
  ]),
  'setting-unread': trouble({ what: text }, (v) => [
    `Some of your ${v.what} in this browser cannot be read.`,
    'Save their text to keep it, then go on without them: the others are as they were.',
  ]),
  'change-refused': trouble({ detail: text }, (v) => [
    `That change was not made: the job could not be opened again with it (${v.detail}).`,
    'Nothing was changed. Where it is long or large, make it less; else load the page anew and try again.',
  ]),
  'job-file': trouble({ file: text, detail: text }, (v) => [
    `${v.file} cannot be taken in as a job: ${v.detail}.`,
    'Nothing was changed. Save the job again where it came from, or pick another file.',
  ]),
  'not-captions': trouble({ file: text, detail: text }, (v) => [
    `${v.file} holds no captions that can be read: ${v.detail}.`,
    'Nothing was changed. Bring in SubRip (.srt) or WebVTT (.vtt).',
  ]),
  'font-gone': trouble({}, () => [
    'A font that you brought in is no longer in this browser.',
    'Bring its file in again, or choose another font.',
  ]),
  'not-font': trouble({ file: text, detail: text }, (v) => [
    `${v.file} cannot be used as a font: ${v.detail}.`,
    'Bring in a TTF, OTF or WOFF2 file.',
  ]),
  cancelled: trouble({}, () => ['Cancelled.', 'Nothing of it was kept.']),
} as const;
