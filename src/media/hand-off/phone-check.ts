/// <reference lib="webworker" />
import { hashOfFile } from '../store/file-hash';

/** Message of the worker: its progress, or its result. */
type WorkerMessage = { done: number } | { sha256: string } | { problem: string };

/** How often it says how far it is, in bytes. */
const SAY_EVERY = 4_000_000;

// One script for both: the page starts it once more as its worker.
if (typeof document === 'undefined') readForPage();
else mindPage();

function readForPage(): void {
  self.onmessage = async ({ data: file }: MessageEvent<File>) => {
    const say = (said: WorkerMessage) => self.postMessage(said);
    let last = 0;
    const reportDone = (done: number) => {
      if (done - last < SAY_EVERY) return;
      last = done;
      say({ done });
    };
    try {
      say({ sha256: await hashOfFile(file, reportDone) });
    } catch {
      say({ problem: 'The file cannot be read. Choose it again.' });
    }
  };
}

function mindPage(): void {
  const main = document.querySelector('main');
  const picker = document.querySelector<HTMLInputElement>('#file');
  const bar = document.querySelector<HTMLProgressElement>('#progress');
  const status = document.querySelector<HTMLElement>('#found');
  const token = main?.dataset.token;
  if (!picker || !bar || !status || token === undefined) return;
  const tell = (words: string, look = '') => {
    status.textContent = words;
    status.className = look;
  };
  picker.addEventListener('change', () => {
    const [file] = picker.files ?? [];
    if (!file) return;
    tell('Reading it…');
    bar.hidden = false;
    bar.value = 0;
    const worker = new Worker(import.meta.url, { type: 'module' });
    const end = () => {
      worker.terminate();
      bar.hidden = true;
      // The same file may be chosen again.
      picker.value = '';
    };
    worker.onerror = () => {
      end();
      tell('This browser cannot check it. Compare the size by hand.', 'differs');
    };
    worker.onmessage = ({ data }: MessageEvent<WorkerMessage>) => {
      if ('done' in data) return void (bar.value = data.done / file.size);
      end();
      if ('problem' in data) return tell(data.problem, 'differs');
      void report(token, { bytes: file.size, sha256: data.sha256 }).then(([words, look]) =>
        tell(words, look),
      );
    };
    worker.postMessage(file);
  });
}

/** Tells the desk what arrived. @returns what it comes to, and how that looks. */
async function report(token: string, arrival: { bytes: number; sha256: string }): Promise<[string, string]> {
  try {
    const response = await fetch(`/${token}/arrived`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify(arrival),
    });
    if (response.status === 410)
      return ['This address has run out. Ask for a new code at the desk.', 'differs'];
    const { same } = (await response.json()) as { same: boolean };
    return same
      ? ['The same: every byte arrived. The desk knows, and this address is closed.', 'same']
      : ['Not the same: this is another file, or not all of it. Save it again, then choose it.', 'differs'];
  } catch {
    return ['The desk cannot be reached. Stay in its network, and choose the file again.', 'differs'];
  }
}
