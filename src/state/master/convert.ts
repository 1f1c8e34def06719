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
import { type Trouble, type TroubleCode, TroubleError } from '@core/trouble/trouble';
import { uploadFile } from '@media/send/upload';
import { askBytes, askJson, type ServerName, serverTrouble, tellServer } from '../server';
import { awaitOutcome } from '../task';

/** Troubles of a file that a conversion may cure. */
const CURABLE: readonly TroubleCode[] = [
  'codec-missing',
  'sound-missing',
  'not-media',
  'pixel-format',
  'range-clipped',
  'rgb-planes',
];
/** How often the server is asked, in milliseconds. */
const ASK_EVERY = 400;
/** How the server with ffmpeg is called in words. */
const SERVER: ServerName = { who: 'The server', errand: 'convert' };

interface ConvertState {
  /** Running step, or null. Bytes while it is sent and fetched, seconds while it is converted. */
  stage: { name: 'send' | 'wait' | 'convert' | 'fetch'; done: number; total: number | null } | null;
  trouble: Trouble | null;
  /** True when the file that was refused can be converted; null while the server is asked. */
  able: boolean | null;
}

export const useConvert = create<ConvertState>(() => ({ stage: null, trouble: null, able: false }));

let stop: AbortController | null = null;

/**
 * Tells whether a file that was refused with a trouble can be converted: by its trouble, and by what the
 * server has.
 */
export async function canConvert(trouble: Trouble): Promise<boolean> {
  if (!CURABLE.includes(trouble.code)) return false;
  try {
    return (await askJson(SERVER, CONVERT_ABILITY, abilitySchema)).ffmpeg;
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
  const mine = (stop = new AbortController());
  const show: ShowStage = (name, done, total) => {
    if (stop === mine) useConvert.setState({ stage: { name, done, total } });
  };
  useConvert.setState({ trouble: null });
  show('send', 0, file.size);
  let id: string | null = null;
  let useless = false;
  mine.signal.addEventListener('abort', () => (useless = true));
  const forget = () => {
    if (id) tellServer(SERVER, conversionPath(id), { method: 'DELETE' });
    return Promise.resolve();
  };
  const outcome = await awaitOutcome(
    {
      async run(signal) {
        const key = `convert-${file.name}-${file.size}-${file.lastModified}`;
        const request = { endpoint: CONVERT_UPLOADS, ...SERVER, file, key };
        id = await uploadFile(request, (sent, total) => show('send', sent, total), signal);
        const { bytes } = await convertUpload(id, signal, show);
        show('fetch', 0, bytes);
        const copy = await askBytes(SERVER, convertedPath(id), { signal, size: bytes });
        // Only now that the copy is whole is what lies on the server of no more use.
        await forget();
        return copy;
      },
      // What was broken off goes on from what is there; what was cancelled or cannot be converted is of no use.
      clean: () => (useless ? forget() : Promise.resolve()),
      trouble(error) {
        const trouble = serverTrouble(SERVER, error);
        useless ||= trouble.code === 'conversion-failed';
        return trouble;
      },
    },
    mine.signal,
  );
  if (stop === mine) {
    useConvert.setState({ stage: null, trouble: outcome.state === 'failed' ? outcome.trouble : null });
  }
  if (outcome.state !== 'done') return null;
  const name = file.name.replace(/\.[^.]+$/, '') + ' (converted).mp4';
  return new File([outcome.result], name, { type: 'video/mp4' });
}

type ShowStage = (
  name: NonNullable<ConvertState['stage']>['name'],
  done: number,
  total: number | null,
) => void;

async function convertUpload(
  id: string,
  signal: AbortSignal,
  show: ShowStage,
): Promise<Extract<Conversion, { state: 'done' }>> {
  for (let method: 'POST' | 'GET' = 'POST'; ; method = 'GET') {
    const conversion = await askJson(SERVER, conversionPath(id), conversionSchema, { method, signal });
    if (conversion.state === 'done') return conversion;
    if (conversion.state === 'failed')
      throw new TroubleError('conversion-failed', { fault: conversion.fault });
    if (conversion.state === 'queued') show('wait', 0, null);
    else show('convert', conversion.doneSeconds, conversion.totalSeconds);
    await new Promise((resolve) => setTimeout(resolve, ASK_EVERY));
  }
}
