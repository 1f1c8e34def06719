import type { ExportRecord } from '@core/job/records';
import { toTrouble, troubleWords } from '@core/trouble/trouble';
import { deleteStored, storedFile, storedNames } from '@media/store/storage';
import { KEEP } from '@media/worker/worker-protocol';
import { makeExports, estimateSeconds } from './export-making';
import { forgetExport, loadOrder } from './export-orders';
import { type ExportProgress, useExportQueue } from './export-running';
import { dropExport, findOpenExports, holdExports, putExport, useJobs } from '../job';
import { listenToTabs } from '../store';
import { type TaskOutcome, awaitOutcome } from '../task';

/** Exports that are made in one go, since they are of one clip. */
interface ExportBatch {
  id: string;
  jobId: string;
  records: ExportRecord[];
  /** Settles once their orders are stored. */
  ready: Promise<unknown>;
  letGo: () => void;
}

/** Running work of the queue. */
interface Work {
  go: ExportBatch;
  stop: AbortController;
  pauses: boolean;
  ended: Promise<void>;
}

const waiting: ExportBatch[] = [];
let current: Work | null = null;
let isStarting = false;

/** A record that could not be stored is still shown; the page says that it cannot save. */
const untold = (error: unknown): void => console.error('an export could not be written down', error);

/** The place of an export in the queue: those with a lower one come first. */
export const toQueuePlace = ({ place, startedAt }: ExportRecord): number => place ?? Date.parse(startedAt);

/**
 * Puts exports of one go into the queue, to be made when it is their turn.
 * @param ready settles once their orders are stored.
 */
export function enqueue(
  jobId: string,
  records: readonly ExportRecord[],
  ready: Promise<unknown> = Promise.resolve(),
): void {
  const [first] = records;
  if (!first) return;
  const ids = records.map(({ id }) => id);
  // What went wrong there is told when they are made.
  ready.catch(() => undefined);
  const letGo = holdExports(ids);
  waiting.push({ id: first.go ?? first.id, jobId, records: [...records], ready, letGo });
  for (const record of records) void putExport(jobId, record).catch(untold);
  showWaiting();
  void pump();
}

/** Makes what waits, one go after another. */
async function pump(): Promise<void> {
  if (current || isStarting) return;
  isStarting = true;
  // What is put into the queue together stands in its order before the first begins.
  await Promise.resolve();
  isStarting = false;
  sortWaiting();
  const go = waiting.shift();
  if (!go) return;
  const now: Work = { go, stop: new AbortController(), pauses: false, ended: Promise.resolve() };
  current = now;
  now.ended = work(now).catch((error: unknown) => console.error('an export was not settled', error));
  await now.ended;
  go.letGo();
  drop(go);
  current = null;
  showWaiting();
  void pump();
}

const sortWaiting = (): void => void waiting.sort((a, b) => toPlace(a) - toPlace(b));
const toPlace = ({ records: [first] }: ExportBatch): number => (first ? toQueuePlace(first) : 0);

const exportsInQueue = (jobId: string): string[] =>
  [...(current ? [current.go] : []), ...waiting]
    .filter((go) => go.jobId === jobId)
    .flatMap(({ records }) => records.map(({ id }) => id));

const drop = (go: ExportBatch): void => {
  const over = new Set(go.records.map(({ id }) => id));
  useExportQueue.setState(({ running }) => ({
    running: Object.fromEntries(Object.entries(running).filter(([id]) => !over.has(id))),
  }));
};

/** Tells of all that wait how long it is until they are made. */
function showWaiting(): void {
  sortWaiting();
  const { running } = useExportQueue.getState();
  const [busy] = current?.go.records ?? [];
  let before = busy ? (running[busy.id]?.left ?? null) : 0;
  const shown: Record<string, ExportProgress> = {};
  for (const { jobId, records } of waiting) {
    const own = estimateSeconds(records.reduce((sum, { frames = 0 }) => sum + frames, 0));
    before = before === null || own === null ? null : before + own;
    for (const { id } of records)
      shown[id] = { jobId, stage: 'waiting', done: 0, total: 1, speed: null, left: before };
  }
  useExportQueue.setState({ running: { ...running, ...shown } });
}

/** Makes the exports of a go, and settles their records, whatever becomes of it. */
async function work(now: Work): Promise<void> {
  const { go, stop } = now;
  // Those whose bytes are whole: what fails later leaves them alone.
  const proved = new Set<string>();
  const outcome = await awaitOutcome(
    {
      async run(signal) {
        await go.ready;
        await makeExports(go.records, { jobId: go.jobId, signal, show, proved });
      },
      async clean() {
        // What is whole of one that was paused, or failed, stays, so that it goes on from there.
        if (now.pauses || !stop.signal.aborted) return;
        for (const { id } of go.records) if (!proved.has(id)) await forgetExport(id);
      },
      trouble: (error) => toTrouble(error, 'export-failed', {}),
    },
    stop.signal,
  );
  for (const record of go.records) {
    if (proved.has(record.id) || outcome.state === 'done') continue;
    await settle(now, record, outcome).catch(untold);
  }
}

/** Nothing stays of an export that was cancelled; one that failed says why. */
function settle(
  { go: { jobId }, pauses }: Work,
  record: ExportRecord,
  outcome: Exclude<TaskOutcome<void>, { state: 'done' }>,
): Promise<void> {
  if (outcome.state === 'cancelled') {
    return pauses
      ? putExport(jobId, { ...record, state: 'paused', share: toShare(record.id) })
      : dropExport(jobId, record.id);
  }
  const { what, todo } = troubleWords(outcome.trouble);
  return putExport(jobId, { ...record, state: 'failed', error: `${what} ${todo}` });
}

/** How much of an export is made, by what is shown. */
function toShare(id: string): number {
  const now = useExportQueue.getState().running[id];
  return (now?.stage === 'export' || now?.stage === 'held') && now.total > 0 ? now.done / now.total : 0;
}

/** Shows where exports stand, and how long what waits behind them has to wait. */
function show(ids: readonly string[], now: ExportProgress): void {
  useExportQueue.setState(({ running }) => ({
    running: { ...running, ...Object.fromEntries(ids.map((id) => [id, now])) },
  }));
  showWaiting();
}

const findBatch = (exportId: string): ExportBatch | null =>
  [...(current ? [current.go] : []), ...waiting].find(({ records }) =>
    records.some(({ id }) => id === exportId),
  ) ?? null;

/** Takes a go that waits out of the queue. */
function takeOut(go: ExportBatch): void {
  waiting.splice(waiting.indexOf(go), 1);
  go.letGo();
  drop(go);
  showWaiting();
}

/** Stops an export, or drops one that is held; resolves when nothing of it is left. What is made with it goes on. */
export const cancelExport = (jobId: string, exportId: string): Promise<void> =>
  cancelExports(jobId, [exportId]);

/** Stops several exports of a job; others that are made together with them go on from where they are. */
export async function cancelExports(jobId: string, ids: readonly string[]): Promise<void> {
  const over = new Set(ids);
  for (const go of new Set(ids.map(findBatch))) {
    if (!go) continue;
    const others = go.records.filter(({ id }) => !over.has(id));
    const isRunning = current?.go === go;
    if (current && isRunning && others.length === 0) {
      current.stop.abort();
      await current.ended;
    } else if (current && isRunning) {
      current.pauses = true;
      current.stop.abort(KEEP);
      await current.ended;
    } else takeOut(go);
    if (others.length > 0) enqueue(jobId, others.map(asRunning));
  }
  for (const id of ids) {
    await dropExport(jobId, id);
    await forgetExport(id);
  }
}

const asRunning = (record: ExportRecord): ExportRecord => ({ ...record, state: 'running', error: null });

/** Holds an export, and those that are made with it; what is whole of them stays. */
export async function pauseExport(exportId: string): Promise<void> {
  const go = findBatch(exportId);
  if (!go) return;
  if (current?.go === go) {
    current.pauses = true;
    current.stop.abort(KEEP);
    return current.ended;
  }
  takeOut(go);
  for (const record of go.records) await putExport(go.jobId, { ...record, state: 'paused' });
}

/** Takes up exports that were paused, or that failed, with those that were asked for together with them. */
export function resumeExport(jobId: string, record: ExportRecord): void {
  const all = useJobs.getState().listed[jobId]?.exports ?? [];
  const isStopped = (other: ExportRecord) => other.state === 'paused' || other.state === 'failed';
  const together = all.filter(
    (other) => isStopped(other) && other.go !== undefined && other.go === record.go,
  );
  const records = together.length > 0 ? together : [record];
  enqueue(jobId, records.map(asRunning));
}

/** Puts an export that waits before another one, or behind all. */
export function moveExport(exportId: string, before: string | null): void {
  const go = findBatch(exportId);
  if (!go || current?.go === go) return;
  // Beside one that is made with it, it stands already.
  if (go.records.some(({ id }) => id === before)) return;
  const others = waiting.filter((other) => other !== go);
  const at = others.findIndex(({ records }) => records.some(({ id }) => id === before));
  const [earlier, later] = at < 0 ? [others[others.length - 1], undefined] : [others[at - 1], others[at]];
  const place = placeBetween(earlier && toPlace(earlier), later && toPlace(later));
  go.records = go.records.map((record) => ({ ...record, place }));
  for (const record of go.records) void putExport(go.jobId, record).catch(untold);
  showWaiting();
}

function placeBetween(earlier: number | undefined, later: number | undefined): number {
  if (earlier === undefined) return (later ?? 0) - 1000;
  return later === undefined ? earlier + 1000 : (earlier + later) / 2;
}

/** Takes up what an earlier page was asked for and did not come to. */
export async function takeUpExports(): Promise<void> {
  const gos = new Map<string, { jobId: string; records: ExportRecord[] }>();
  for (const { jobId, record, letGo } of await findOpenExports()) {
    const order = await loadOrder(record.id);
    if (!order) {
      await putExport(jobId, { ...record, state: 'interrupted' });
      letGo();
      continue;
    }
    const key = record.go ?? record.id;
    const go = gos.get(key) ?? { jobId, records: [] };
    go.records.push(record);
    gos.set(key, go);
  }
  // A job that another tab deletes is not exported any more.
  listenToTabs((message) => {
    if (message.type === 'deleted') void cancelExports(message.id, exportsInQueue(message.id)).catch(untold);
  });
  // The queue takes their locks over.
  for (const { jobId, records } of gos.values()) enqueue(jobId, records);
  await sweepOrphans();
}

/** Age in milliseconds from which a record was not stored by another tab right now. */
const LONG_AGO = 600_000;
/** A job of another tab may not be stored yet: its master stays for a day, in milliseconds. */
const MASTER_LIFE_MS = 24 * 3600_000;

/**
 * Deletes what is stored of exports that no job knows, what an export that is whole left of its making, and masters
 * that no job has. Jobs that do not open may need theirs.
 */
async function sweepOrphans(): Promise<void> {
  const { listed, aside } = useJobs.getState();
  const jobs = Object.values(listed);
  const exports = new Map(jobs.flatMap((job) => job.exports.map((record) => [record.id, record] as const)));
  for (const name of await storedNames('exports')) {
    const record = exports.get(name.split('.')[0] ?? '');
    const isOver = record?.state === 'done' && name.endsWith('.packets');
    if (!record || isOver) await deleteOld('exports', name, LONG_AGO);
  }
  if (aside.length > 0) return;
  const used = new Set<string>(
    jobs.flatMap(({ head }) => head.masters.map(({ fingerprint }) => fingerprint)),
  );
  for (const name of await storedNames('masters'))
    if (!used.has(name)) await deleteOld('masters', name, MASTER_LIFE_MS);
}

async function deleteOld(folder: 'exports' | 'masters', name: string, ageMs: number): Promise<void> {
  const file = await storedFile(folder, name).catch(() => null);
  if (file && Date.now() - file.lastModified > ageMs) await deleteStored(folder, name).catch(() => undefined);
}
