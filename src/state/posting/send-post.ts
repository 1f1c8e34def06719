import { z } from 'zod';
import { create } from 'zustand';
import { postStops } from '@core/check/post-check';
import { parseRandomId, randomIdSchema } from '@core/figures/random-id';
import type { Clip, GoneClip } from '@core/job/clip';
import { findClip, type Job } from '@core/job/job';
import type { ExportRecord } from '@core/job/records';
import { collectChosenWords } from '@core/job/post-words';
import { findPlacement } from '@core/outlets/outlets';
import type { PostWords } from '@core/outlets/post-form';
import type { Account } from '@core/posting/accounts';
import {
  againPath,
  type DispatchedPost,
  POSTED,
  postedSchema,
  POSTING_UPLOADS,
  type PostOrder,
} from '@core/posting/post-order';
import type { PostTime } from '@core/posting/when';
import { type Trouble, TroubleError, toTrouble } from '@core/trouble/trouble';
import { vttText } from '@core/words/files/write-captions';
import { uploadFile } from '@media/send/upload';
import { toBase64, coverToSend } from '../picture';
import { loadExportedFile } from '../export';
import { changePosted, POSTING, takePosted, useFollowedPosts } from './follow-posts';
import { putPost, sheetsNow } from '../job';
import { askJson, serverTrouble } from '../server';
import { dropSetting, loadSetting, saveSetting } from '../store';
import { awaitOutcome } from '../task';

/** A file on its way to the server, from which it goes on to its outlet. */
export interface PostUpload {
  jobId: string;
  /** Bytes. */
  sent: number;
  total: number;
}

interface PostsState {
  /** By the export that is sent. */
  sending: Readonly<Record<string, PostUpload>>;
  troubles: Readonly<Record<string, Trouble>>;
}

export const useSendings = create<PostsState>(() => ({ sending: {}, troubles: {} }));

const stops = new Map<string, AbortController>();

/** IDs that the server gave a file, and its post once there is one. */
const givenSchema = z.object({ upload: randomIdSchema, id: randomIdSchema });
const givenSetting = (exportId: string): string => `given/${exportId}`;

/** When something goes out, and as whom. */
export interface PostChoice {
  account: Account;
  when: PostTime | null;
}

/**
 * Gives an export to the server, which posts it: with its own clip's words, whatever is being worked on. What is there
 * already is not sent again, and what was asked for already is no second post.
 */
export async function sendPost(job: Job, record: ExportRecord, choice: PostChoice): Promise<void> {
  const clip = findClip(job.edit, record.clip);
  if (useSendings.getState().sending[record.id] || record.placement === null || !clip) return;
  const target = findPlacement(sheetsNow(), record.placement);
  if (!target || postStops(job, record, sheetsNow()).length > 0) return;
  const stop = new AbortController();
  stops.set(record.id, stop);
  const show = (sent: number, total: number) =>
    useSendings.setState(({ sending }) => ({
      sending: { ...sending, [record.id]: { jobId: job.id, sent, total } },
    }));
  useSendings.setState(({ troubles: { [record.id]: _old, ...troubles } }) => ({ troubles }));
  show(0, record.bytes ?? 1);
  const outcome = await awaitOutcome(
    {
      async run(signal) {
        const words = await wordsToSend(job, record, clip, target.placement.id, signal);
        const { outlet } = target.sheet;
        const broken = brokenPost(job, record);
        if (broken)
          return askJson(POSTING, againPath(broken), postedSchema, {
            ...{ method: 'POST', body: { words, account: choice.account.id, when: choice.when }, signal },
          });
        const order = {
          fileName: record.fileName,
          outlet,
          account: choice.account.id,
          words,
          when: choice.when,
        };
        const known = await givenBefore(record.id);
        const posted = known && (await orderPost({ ...order, ...known }, signal).catch(unlessGone));
        return posted ?? orderPost({ ...order, ...(await give(record, show, signal)) }, signal);
      },
      // What is up stays up: the next attempt goes on from there.
      clean: () => Promise.resolve(),
      trouble: (error) => serverTrouble(POSTING, error),
    },
    stop.signal,
  );
  let trouble = outcome.state === 'failed' ? outcome.trouble : null;
  if (outcome.state === 'done') {
    try {
      await putPost(job.id, toRecord(outcome.result, record, choice.account));
      await takePosted(outcome.result);
      await dropSetting(givenSetting(record.id));
    } catch (error) {
      // The server has it: asked for again it is the same post.
      trouble = toTrouble(error, 'save-failed', {});
    }
  }
  stops.delete(record.id);
  useSendings.setState(({ sending: { [record.id]: _done, ...sending }, troubles }) => ({
    sending,
    troubles: trouble ? { ...troubles, [record.id]: trouble } : troubles,
  }));
}

/** Gives a post that waits for its time the words that are written now, and another time or account. */
export async function changePost(
  job: Job,
  post: string,
  record: ExportRecord,
  choice: PostChoice,
): Promise<void> {
  const clip = findClip(job.edit, record.clip);
  const target = findPlacement(sheetsNow(), record.placement ?? '');
  if (!clip || !target) return;
  await changePosted(post, async () => ({
    words: await wordsToSend(job, record, clip, target.placement.id, new AbortController().signal),
    ...{ account: choice.account.id, when: choice.when },
  }));
}

const BROKEN: readonly string[] = ['refused', 'failed', 'held', 'missed'];

/** A post of an export that came to nothing: its file is on the server, and need not be sent again. */
function brokenPost(job: Job, { id }: ExportRecord): string | null {
  const { posts } = useFollowedPosts.getState();
  const found = job.posts.find(
    (post) => post.exportId === id && BROKEN.includes(posts[post.id]?.state ?? ''),
  );
  return found?.id ?? null;
}

export function cancelSending(exportId: string): void {
  stops.get(exportId)?.abort();
}

/** All that an outlet is sent beside the file. @throws TroubleError */
async function wordsToSend(
  job: Job,
  record: ExportRecord,
  clip: Clip | GoneClip,
  placement: string,
  signal: AbortSignal,
): Promise<PostWords> {
  const outlet = findPlacement(sheetsNow(), record.placement ?? '')?.sheet.outlet ?? '';
  const cover = await coverToSend(job, record, signal);
  return {
    ...collectChosenWords(clip, outlet, placement),
    cover: cover && (await toBase64(cover)),
    captions: record.captions && record.captions.length > 0 ? vttText(record.captions) : null,
  };
}

/** Sends a file to the server. @throws TroubleError */
async function give(
  record: ExportRecord,
  show: (sent: number, total: number) => void,
  signal: AbortSignal,
): Promise<z.infer<typeof givenSchema>> {
  const file = await loadExportedFile(record);
  if (!file) throw new TroubleError('export-gone', { file: record.fileName });
  const request = { endpoint: POSTING_UPLOADS, ...POSTING, file, key: `posting-${record.id}` };
  const upload = await uploadFile(request, show, signal);
  const given = { upload, id: parseRandomId(crypto.randomUUID().replaceAll('-', '')) };
  await saveSetting(givenSetting(record.id), JSON.stringify(given));
  return given;
}

async function givenBefore(exportId: string): Promise<z.infer<typeof givenSchema> | null> {
  const text = await loadSetting(givenSetting(exportId));
  return text === null ? null : (givenSchema.safeParse(JSON.parse(text)).data ?? null);
}

const orderPost = (order: PostOrder, signal: AbortSignal): Promise<DispatchedPost> =>
  askJson(POSTING, POSTED, postedSchema, { method: 'POST', body: order, signal });

const toRecord = (
  { id, outlet, words, state, reasons, page }: DispatchedPost,
  of: ExportRecord,
  { account }: Account,
) => ({
  ...{ id, clip: of.clip, exportId: of.id, outlet, account: account.name, title: words.title },
  ...{ audience: words.audience, at: new Date().toISOString(), state, reasons, page },
});

/** An upload that the server no longer has is sent again; any other failure is one. */
function unlessGone(error: unknown): null {
  if (error instanceof TroubleError && error.trouble.code === 'server-refused') {
    if (error.trouble.values.why === 'gone') return null;
  }
  throw error;
}
