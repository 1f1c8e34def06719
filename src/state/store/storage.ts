import { createAsyncStorage } from '@react-native-async-storage/async-storage';

/** Storage of jobs and settings in this browser: small texts, each written by itself. Media lie elsewhere. */
export const storage = createAsyncStorage('gusset');

const SETTING = 'setting/';

/** A small setting of this browser, or null. */
export function loadSetting(name: string): Promise<string | null> {
  return storage.getItem(SETTING + name);
}

export function saveSetting(name: string, value: string): Promise<void> {
  return storage.setItem(SETTING + name, value);
}

export function dropSetting(name: string): Promise<void> {
  return storage.removeItem(SETTING + name);
}
