import { create } from 'zustand';
import type { ExportRecord } from '@core/job/records';
import type { ReturnedFile } from '@core/proof/returned';
import { CHAT_NAME, CHAT_UPLOADS, chatFilePath } from '@core/posting/chat';
import { toTrouble, type Trouble, TroubleError } from '@core/trouble/trouble';
import { uploadFile } from '@media/send/upload';
import { lookAtReturnedFile } from '@media/worker/tasks';
import { storedName } from './export-orders';
import { loadExportedFile } from './exports';
import { askBytes, type ServerName, serverTrouble } from '../server';
import { awaitOutcome } from '../task';

const CHAT: ServerName = { who: CHAT_NAME, errand: 'chat' };

/** A file that came back, being looked at or looked at. */
interface ReturnedState {
  /** The export that it should be. */
  exportId: string | null;
  fileName: string;
  progress: { stage: string; done: number; total: number } | null;
  result: { returned: ReturnedFile; pictures: { sent: Blob; got: Blob } | null } | null;
  trouble: Trouble | null;
}

const NONE: ReturnedState = { exportId: null, fileName: '', progress: null, result: null, trouble: null };
export const useReturned = create<ReturnedState>(() => NONE);

let stop = new AbortController();

/** Holds a file that came back against an export; an earlier look ends. */
export async function lookAtFile(record: ExportRecord, file: File): Promise<void> {
  stop.abort();
  stop = new AbortController();
  const { signal } = stop;
  const own = { ...NONE, exportId: record.id, fileName: file.name };
  useReturned.setState({ ...own, progress: { stage: 'hash', done: 0, total: 1 } });
  const outcome = await awaitOutcome(
    {
      run: () =>
        lookAtReturnedFile(
          { name: storedName(record.id), fileName: record.fileName, file },
          { onProgress: (progress) => signal.aborted || useReturned.setState({ progress }), signal },
        ),
      clean: () => Promise.resolve(),
      trouble: (error) => toTrouble(error, 'damaged', { file: file.name }),
    },
    signal,
  );
  if (signal.aborted) return;
  useReturned.setState({
    ...own,
    result: outcome.state === 'done' ? outcome.result : null,
    trouble: outcome.state === 'failed' ? outcome.trouble : null,
  });
}

/** Sends an export through the stand-in of a chat app, and looks at what its receiver would get. */
export async function sendThroughChat(record: ExportRecord): Promise<void> {
  stop.abort();
  stop = new AbortController();
  const { signal } = stop;
  const own = { ...NONE, exportId: record.id, fileName: record.fileName };
  const show = (stage: string, done: number, total: number) =>
    signal.aborted || useReturned.setState({ progress: { stage, done, total } });
  useReturned.setState(own);
  show('send', 0, record.bytes ?? 1);
  const outcome = await awaitOutcome(
    {
      async run() {
        const file = await loadExportedFile(record);
        if (!file) throw new TroubleError('export-gone', { file: record.fileName });
        const request = { endpoint: CHAT_UPLOADS, ...CHAT, file, key: `chat-${record.id}` };
        const upload = await uploadFile(request, (sent, total) => show('send', sent, total), signal);
        show('shrink', 0, 0);
        return askBytes(CHAT, chatFilePath(upload), { signal });
      },
      clean: () => Promise.resolve(),
      trouble: (error) => serverTrouble(CHAT, error),
    },
    signal,
  );
  if (signal.aborted) return;
  if (outcome.state === 'done') return lookAtFile(record, new File([outcome.result], `${CHAT_NAME}.mp4`));
  useReturned.setState({ ...own, trouble: outcome.state === 'failed' ? outcome.trouble : null });
}

/** Ends a look, and forgets what was found. */
export function dismissReturned(): void {
  stop.abort();
  useReturned.setState(NONE);
}
