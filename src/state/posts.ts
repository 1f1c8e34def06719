import { create } from 'zustand';
import { postStops } from '@core/check/post-check';
import { clipOf, type Job } from '@core/job/job';
import type { ExportRecord } from '@core/job/records';
import { findPlacement } from '@core/outlets/outlets';
import { type Trouble, TroubleError } from '@core/trouble/trouble';
import type { PostForm } from '@core/outlets/post-form';
import { connectorOf } from './connectors/connectors';
import { base64Of, coverToSend } from './covers';
import { exportedFile } from './exports';
import { addPost } from './records';
import { type ServerName, serverTrouble } from './server';
import { sheetsNow } from './sheets';
import { dropSetting, loadSetting, saveSetting } from './store/storage';
import { outcomeOf } from './task';

/** A post on its way. */
export interface Sending {
  jobId: string;
  /** Bytes. */
  sent: number;
  total: number;
  /** The file is up, and the outlet checks it. */
  judging: boolean;
}

interface PostsState {
  sending: Sending | null;
  trouble: Trouble | null;
}

export const usePosts = create<PostsState>(() => ({ sending: null, trouble: null }));

let stop: AbortController | null = null;

/** Where an upload that is whole is remembered until the outlet has answered for it. */
const sentSetting = (key: string): string => `sent/${key}`;

/**
 * Uploads an export and posts it with its own clip's words, whatever is being worked on; the outlet checks the file
 * itself. An answer that was lost on the way is asked for again: nothing is sent twice (`resilience.test.ts`),
 * and nothing is posted twice (`posts.test.ts` of the server).
 */
export async function sendPost(job: Job, record: ExportRecord): Promise<void> {
  const clip = clipOf(job.edit, record.clip);
  if (usePosts.getState().sending || record.placement === null || !clip) return;
  const target = findPlacement(sheetsNow(), record.placement);
  if (!target || postStops(job, record, sheetsNow()).length > 0) return;
  const { sheet, placement } = target;
  const server: ServerName = { who: sheet.name, errand: 'post' };
  const connector = connectorOf(sheet.outlet);
  const key = `${sheet.outlet}-${record.id}`;
  const mine = (stop = new AbortController());
  const show = (sent: number, total: number, judging: boolean) =>
    usePosts.setState({ sending: { jobId: job.id, sent, total, judging } });
  usePosts.setState({ trouble: null });
  show(0, record.bytes ?? 1, false);
  const { title, description, tags, forChildren = null, longVideo = null } = clip.words;
  const { audience } = clip;
  const words = { title, description, tags, audience, forChildren, longVideo };
  const form: Omit<PostForm, 'upload'> = { placement: placement.id, ...words, cover: null };
  const outcome = await outcomeOf(
    {
      async run(signal) {
        const file = await exportedFile(record);
        if (!file) throw new TroubleError('export-gone', { file: record.fileName });
        const upload = async () => {
          const onProgress = (sent: number, total: number) => show(sent, total, false);
          const id = await connector.upload({ sheet, file, key }, onProgress, signal);
          await saveSetting(sentSetting(key), id);
          return id;
        };
        const answered = async (id: string) => {
          show(file.size, file.size, true);
          return connector.post(sheet, { ...form, upload: id }, signal);
        };
        const cover = await coverToSend(job, record, signal);
        form.cover = cover && (await base64Of(cover));
        const known = await loadSetting(sentSetting(key));
        const answer = known === null ? null : await answered(known).catch(unlessGone);
        return answer ?? (await answered(await upload()));
      },
      // What is up stays up: the next attempt goes on from there.
      clean: () => Promise.resolve(),
      trouble: (error) => serverTrouble(server, error),
    },
    mine.signal,
  );
  if (outcome.state === 'done') {
    const answer = outcome.result;
    await addPost(job.id, {
      id: crypto.randomUUID(),
      clip: record.clip,
      exportId: record.id,
      outlet: sheet.outlet,
      title,
      audience,
      at: new Date().toISOString(),
      state: answer.state,
      reasons: answer.state === 'refused' ? answer.reasons : [],
      page: answer.state === 'accepted' ? answer.page : null,
    });
    // Refused words can be mended and posted again: the file is up, and need not be sent again.
    if (answer.state === 'accepted') await dropSetting(sentSetting(key));
  }
  usePosts.setState({ sending: null, trouble: outcome.state === 'failed' ? outcome.trouble : null });
}

/** An upload that the outlet no longer has is sent again; any other failure is one. */
function unlessGone(error: unknown): null {
  if (error instanceof TroubleError && error.trouble.code === 'server-refused') {
    if (error.trouble.values.why === 'gone') return null;
  }
  throw error;
}

export function cancelPost(): void {
  stop?.abort();
}
