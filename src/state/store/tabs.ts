import type { Entry, JobHead } from '@core/job/document';
import type { RecordChange } from '../job-list-entry';
import { type HeldLock, keepLock } from './locks';

/** Message between tabs about stored jobs, sent after it was stored. */
export type TabMessage =
  | { type: 'changed'; id: string; entry: Entry; head: JobHead }
  /** Stored whole: what is known of it elsewhere is to be read anew. */
  | { type: 'rewritten'; id: string; head: JobHead }
  | { type: 'record'; id: string; made: RecordChange }
  | { type: 'deleted'; id: string }
  /** Another tab wants to work on a job: whoever does hands it over. */
  | { type: 'wanted'; id: string };

/** How long a tab may take to hand a job over before it is taken to be dead, in milliseconds. */
const PATIENCE = 5000;

let channel: BroadcastChannel | null = null;

/** Tells other tabs something; nothing before this tab listens itself. */
export const tellTabs = (message: TabMessage): void => channel?.postMessage(message);

/** Hears what other tabs tell. */
export function listenToTabs(listener: (message: TabMessage) => void): void {
  if (typeof BroadcastChannel === 'undefined') return;
  channel ??= new BroadcastChannel('gusset/jobs');
  // Other tabs run the same program: what they tell needs no checking, and a stranger's page has no part in it.
  channel.addEventListener('message', ({ data }: MessageEvent<TabMessage>) => listener(data));
}

const toName = (id: string): string => `gusset/work/${id}`;
const working = new Map<string, HeldLock>();
const waits = new Map<string, AbortController>();

/** Callbacks of the work on a job. */
export interface WorkListener {
  /** This tab has it from now on. */
  onGained(): void;
  /** Another tab took it away. */
  onLost(): void;
}

/**
 * Works on a job from now on, or, where another tab does, as soon as that one leaves it.
 * @returns whether this tab has it now.
 */
export function takeWork(id: string, listener: WorkListener): Promise<boolean> {
  // Asked for twice at once, it is taken once.
  const taking = takings.get(id) ?? take(id, listener).finally(() => takings.delete(id));
  takings.set(id, taking);
  return taking;
}

const takings = new Map<string, Promise<boolean>>();

async function take(id: string, listener: WorkListener): Promise<boolean> {
  if (working.has(id)) return true;
  const now = await keepLock(toName(id), 'now');
  if (now) {
    keep(id, now, listener);
    return true;
  }
  if (waits.has(id)) return false;
  const wait = new AbortController();
  waits.set(id, wait);
  void keepLock(toName(id), 'wait', wait.signal).then((later) => {
    if (waits.get(id) === wait) waits.delete(id);
    if (!later) return;
    keep(id, later, listener);
    listener.onGained();
  });
  return false;
}

/** Asks the tab that works on a job for it; one that does not answer loses it. */
export function keepWorkOpen(id: string, listener: WorkListener): void {
  tellTabs({ type: 'wanted', id });
  const wait = waits.get(id);
  if (!wait) return;
  setTimeout(() => {
    // Handed over meanwhile, and perhaps back again: another wait is not this one's to end.
    if (waits.get(id) !== wait) return;
    wait.abort();
    waits.delete(id);
    void keepLock(toName(id), 'steal').then((stolen) => {
      if (!stolen) return;
      keep(id, stolen, listener);
      listener.onGained();
    });
  }, PATIENCE);
}

/** Leaves a job to other tabs; waiting for it ends too. */
export function leaveWork(id: string): void {
  waits.get(id)?.abort();
  waits.delete(id);
  working.get(id)?.release();
  working.delete(id);
}

function keep(id: string, kept: HeldLock, listener: WorkListener): void {
  working.set(id, kept);
  void kept.ended.then((how) => {
    if (how === 'released' || working.get(id) !== kept) return;
    working.delete(id);
    listener.onLost();
  });
}
