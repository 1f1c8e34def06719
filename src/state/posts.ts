import { create } from 'zustand';
import { checkJob, heldBack } from '@core/check/check';
import { activeClip, type Job, onClip } from '@core/job/job';
import type { ExportRecord } from '@core/job/records';
import { placementOf } from '@core/outlets/outlets';
import {
  postAnswerSchema,
  type PostAnswer,
  type PostForm,
  postsPath,
  uploadsPath,
} from '@core/outlets/post-form';
import { troubleOf, type Trouble, TroubleError } from '@core/trouble/trouble';
import { uploadFile } from '@media/send/upload';
import { exportedFile } from './exports';
import { addPost } from './jobs';

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

/** Uploads an export and posts it with the job's words; the outlet checks the file itself. */
export async function sendPost(job: Job, record: ExportRecord): Promise<void> {
  const work = onClip(job, record.clip);
  const clip = activeClip(work.edit);
  if (usePosts.getState().sending || heldBack(checkJob(work), clip.overrides, 'post').length > 0) return;
  if (record.placement === null) return;
  const { sheet, placement } = placementOf(record.placement);
  const { signal } = (stop = new AbortController());
  const show = (sent: number, total: number, judging: boolean) =>
    usePosts.setState({ sending: { jobId: job.id, sent, total, judging } });
  usePosts.setState({ trouble: null });
  show(0, record.bytes ?? 1, false);
  try {
    const file = await exportedFile(record);
    if (!file) throw new TroubleError('master-gone', { file: record.fileName });
    const endpoint = uploadsPath(sheet.outlet);
    const target = { endpoint, outlet: sheet.name, file, key: `${sheet.outlet}-${record.id}` };
    const upload = await uploadFile(target, (sent, total) => show(sent, total, false), signal);
    show(file.size, file.size, true);
    const { title, description, tags } = clip.words;
    const form: PostForm = {
      upload,
      placement: placement.id,
      title,
      description,
      tags,
      audience: clip.audience,
    };
    const answer = await sendForm(sheet.outlet, sheet.name, form, signal);
    addPost(job.id, {
      id: crypto.randomUUID(),
      clip: record.clip,
      exportId: record.id,
      outlet: sheet.outlet,
      title,
      audience: clip.audience,
      at: new Date().toISOString(),
      state: answer.state,
      reasons: answer.state === 'refused' ? answer.reasons : [],
      page: answer.state === 'accepted' ? answer.page : null,
    });
  } catch (error) {
    const trouble = signal.aborted ? null : troubleOf(error, 'post-failed', { outlet: sheet.name });
    usePosts.setState({ trouble });
  } finally {
    usePosts.setState({ sending: null });
  }
}

export function cancelPost(): void {
  stop?.abort();
}

async function sendForm(
  outlet: string,
  name: string,
  form: PostForm,
  signal: AbortSignal,
): Promise<PostAnswer> {
  const response = await fetch(postsPath(outlet), {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify(form),
    signal,
  }).catch(() => {
    throw new TroubleError('server-down', { outlet: name });
  });
  if (!response.ok)
    throw new TroubleError('post-failed', { outlet: name, detail: `status ${response.status}` });
  return postAnswerSchema.parse(await response.json());
}
