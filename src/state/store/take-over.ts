import legacy from '@react-native-async-storage/async-storage';
import { readOldJob } from '@core/job/stored-job';
import { type AsideJob, createJob, loadJob } from './job-store';
import { runAlone } from './locks';
import { loadSetting, saveSetting } from './storage';

/** How the storage of before called things. */
const JOB = 'gusset/job/';
const SETTING = 'gusset/setting/';

/**
 * Takes over, once, what the storage of before holds: read, written anew, read back, and only then removed. What
 * cannot be read stays there, and is told.
 */
export function takeOver(): Promise<AsideJob[]> {
  return runAlone('gusset/take-over', async () => {
    const aside: AsideJob[] = [];
    for (const key of await legacy.getAllKeys()) {
      const text = await legacy.getItem(key);
      if (text === null) continue;
      if (key.startsWith(JOB)) {
        const left = await takeJob(key.slice(JOB.length), text);
        if (left) aside.push(left);
        else await legacy.removeItem(key);
      } else if (key.startsWith(SETTING)) {
        const name = key.slice(SETTING.length);
        if ((await loadSetting(name)) === null) await saveSetting(name, text);
        if ((await loadSetting(name)) !== null) await legacy.removeItem(key);
      }
    }
    return aside;
  });
}

/** Takes one job over. @returns null once it is safe, or why it is left where it is. */
async function takeJob(id: string, text: string): Promise<AsideJob | null> {
  const read = readOldJob(text);
  if (!read.ok) return { id, text, problem: read.problem, detail: read.detail };
  if (read.file.job.id !== id)
    return { id, text, problem: 'damaged', detail: 'it is stored under another name' };
  // One that is there already was taken over before, and perhaps worked on since.
  try {
    if (!(await loadJob(id))) await createJob(read.file);
  } catch (error) {
    const why = error instanceof Error ? error.message : String(error);
    return { id, text, problem: 'damaged', detail: `it could not be written anew: ${why}` };
  }
  const back = await loadJob(id);
  if (back?.ok) return null;
  return { id, text, problem: 'damaged', detail: back ? back.detail : 'it was not written' };
}
