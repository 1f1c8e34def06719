import { create } from 'zustand';
import {
  abilitySchema,
  type Conversion,
  conversionPath,
  conversionSchema,
  CONVERT_ABILITY,
  CONVERT_UPLOADS,
  convertedPath,
} from '@core/convert/protocol';
import { troubleOf, type Trouble, type TroubleCode, TroubleError } from '@core/trouble/trouble';
import { uploadFile } from '@media/send/upload';

/** Troubles of a file that a conversion may cure. */
const CURABLE: readonly TroubleCode[] = ['codec-missing', 'not-media', 'pixel-format'];
/** How often the server is asked, in milliseconds. */
const ASK_EVERY = 400;
/** How the server with ffmpeg is called in words. */
const SERVER = 'The server';

interface ConvertState {
  /** What is under way, or null. Bytes while it is sent and fetched, seconds while it is converted. */
  stage: { name: 'send' | 'convert' | 'fetch'; done: number; total: number | null } | null;
  trouble: Trouble | null;
}

export const useConvert = create<ConvertState>(() => ({ stage: null, trouble: null }));

let stop: AbortController | null = null;

/** Whether a file that was refused with a trouble can be converted: by its trouble, and by what the server has. */
export async function canConvert(trouble: Trouble): Promise<boolean> {
  if (!CURABLE.includes(trouble.code)) return false;
  try {
    return abilitySchema.parse(await (await fetch(CONVERT_ABILITY)).json()).ffmpeg;
  } catch {
    return false;
  }
}

export function cancelConversion(): void {
  stop?.abort();
}

/** Has a file converted on the server. @returns the copy, or null when that failed or was stopped. */
export async function convertFile(file: File): Promise<File | null> {
  stop?.abort();
  const { signal } = (stop = new AbortController());
  const show = (name: NonNullable<ConvertState['stage']>['name'], done: number, total: number | null) =>
    useConvert.setState({ stage: { name, done, total } });
  useConvert.setState({ trouble: null });
  show('send', 0, file.size);
  let id: string | null = null;
  try {
    const key = `convert-${file.name}-${file.size}-${file.lastModified}`;
    const request = { endpoint: CONVERT_UPLOADS, outlet: SERVER, file, key };
    id = await uploadFile(request, (sent, total) => show('send', sent, total), signal);
    const done = await converted(id, signal, (seconds, total) => show('convert', seconds, total));
    show('fetch', 0, done.bytes);
    const response = await fetch(convertedPath(id), { signal });
    if (!response.ok) throw new TroubleError('server-down', { outlet: SERVER });
    const name = file.name.replace(/\.[^.]+$/, '') + ' (converted).mp4';
    return new File([await response.blob()], name, { type: 'video/mp4' });
  } catch (error) {
    const trouble = signal.aborted ? null : troubleOf(error, 'server-down', { outlet: SERVER });
    useConvert.setState({ trouble });
    return null;
  } finally {
    // What is on the server is of no more use, whatever came of it.
    if (id) void fetch(conversionPath(id), { method: 'DELETE' }).catch(() => undefined);
    useConvert.setState({ stage: null });
  }
}

async function converted(
  id: string,
  signal: AbortSignal,
  onProgress: (doneSeconds: number, totalSeconds: number | null) => void,
): Promise<Extract<Conversion, { state: 'done' }>> {
  let method = 'POST';
  for (;;) {
    const response = await fetch(conversionPath(id), { method, signal });
    if (!response.ok) throw new TroubleError('server-down', { outlet: SERVER });
    const conversion = conversionSchema.parse(await response.json());
    if (conversion.state === 'done') return conversion;
    if (conversion.state === 'failed')
      throw new TroubleError('conversion-failed', { detail: conversion.reason });
    onProgress(conversion.doneSeconds, conversion.totalSeconds);
    method = 'GET';
    await new Promise((resolve) => setTimeout(resolve, ASK_EVERY));
  }
}
