import AsyncStorage from '@react-native-async-storage/async-storage';
import { type JobFile, readJob, writeJob } from '@core/job/job-file';
import { TroubleError } from '@core/trouble/trouble';

const JOB = 'gusset/job/';
const SETTING = 'gusset/setting/';

/** A stored job that this program cannot open. It stays where it is, untouched. */
export interface AsideJob {
  key: string;
  problem: 'damaged' | 'newer';
  detail: string;
  text: string;
}

/** Every stored job: those that open, and those that are kept aside. */
export async function loadJobs(): Promise<{ files: JobFile[]; aside: AsideJob[] }> {
  const keys = (await AsyncStorage.getAllKeys()).filter((key) => key.startsWith(JOB));
  const files: JobFile[] = [];
  const aside: AsideJob[] = [];
  for (const [key, text] of await AsyncStorage.getMany(keys)) {
    const read = readJob(text ?? '');
    if (read.ok && JOB + read.file.job.id === key) files.push(read.file);
    else aside.push({ key, text: text ?? '', ...(read.ok ? { problem: 'damaged', detail: 'id' } : read) });
  }
  return { files, aside };
}

/** Stores a job. @throws TroubleError `save-failed` when the browser refuses. */
export async function saveJob(file: JobFile): Promise<void> {
  try {
    await AsyncStorage.setItem(JOB + file.job.id, writeJob(file));
  } catch (error) {
    throw new TroubleError('save-failed', { detail: error instanceof Error ? error.message : String(error) });
  }
}

export async function deleteJob(id: string): Promise<void> {
  await AsyncStorage.removeItem(JOB + id);
}

/** A small setting of this browser, or null. */
export function loadSetting(name: string): Promise<string | null> {
  return AsyncStorage.getItem(SETTING + name);
}

export function saveSetting(name: string, value: string): Promise<void> {
  return AsyncStorage.setItem(SETTING + name, value);
}
