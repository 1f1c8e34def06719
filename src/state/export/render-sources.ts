import { sha256 } from '@noble/hashes/sha2.js';
import { bytesToHex } from '@noble/hashes/utils.js';
import { z } from 'zod';
import { planOfJob } from '@core/check/check';
import { activeClip } from '@core/job/job';
import {
  createRequestedJob,
  masterPath,
  RENDER_MASTERS,
  RENDER_UPLOADS,
  type RenderRequest,
} from '@core/job/render-service';
import { listOwnFamilies } from '@core/render/overlays';
import { TroubleError } from '@core/trouble/trouble';
import { ownHash } from '@core/words/families';
import { uploadFile } from '@media/send/upload';
import { storedFile } from '@media/store/storage';
import { ownFontNames } from '@media/words/own-fonts';
import { askJson, type ServerName } from '../server';

/** How the server that makes files is called in words. */
export const RENDER_SERVER: ServerName = { who: 'The server', errand: 'render' };

/** Fingerprints of masters and fonts that are on the server. */
export async function findPresentMasters(signal?: AbortSignal): Promise<string[]> {
  const schema = z.object({ masters: z.array(z.string()) });
  return (await askJson(RENDER_SERVER, RENDER_MASTERS, schema, signal ? { signal } : {})).masters;
}

/** Has the server forget masters. @throws TroubleError */
export async function forgetMasters(fingerprints: readonly string[]): Promise<void> {
  for (const fingerprint of fingerprints)
    await askJson(RENDER_SERVER, masterPath(fingerprint), z.unknown(), { method: 'DELETE' });
}

interface Options {
  signal: AbortSignal;
  onProgress: (progress: { stage: 'send'; done: number; total: number }) => void;
}

/**
 * Sends what a request's clip is made of and is not there yet: masters, and fonts of the person's own.
 * @throws TroubleError `master-gone`, `font-gone`, and what sending throws.
 */
export async function sendSources(
  request: Pick<RenderRequest, 'job' | 'clip' | 'canvas' | 'sheets'>,
  options: Options,
): Promise<void> {
  const job = createRequestedJob(request);
  if (!job) return;
  const there = await findPresentMasters(options.signal);
  const used = new Set(activeClip(job.edit).cut.map(({ master }) => master));
  for (const { id, fingerprint, fileName } of job.masters) {
    if (!used.has(id) || there.includes(fingerprint)) continue;
    const file = await storedFile('masters', fingerprint);
    if (!file) throw new TroubleError('master-gone', { file: fileName });
    await send(fingerprint, file, options);
  }
  for (const family of listOwnFamilies(planOfJob(job, request.sheets).overlays)) {
    if (there.some((fingerprint) => fingerprint.startsWith(ownHash(family)))) continue;
    const file = await storedFile('fonts', ownFontNames(family).bytes);
    if (!file) throw new TroubleError('font-gone');
    const fingerprint = bytesToHex(sha256(new Uint8Array(await file.arrayBuffer())));
    await send(fingerprint, file, options);
  }
}

async function send(fingerprint: string, file: File, { signal, onProgress }: Options): Promise<void> {
  const upload = await uploadFile(
    { endpoint: RENDER_UPLOADS, ...RENDER_SERVER, file, key: `render-${fingerprint}` },
    (done, total) => onProgress({ stage: 'send', done, total }),
    signal,
  );
  await askJson(RENDER_SERVER, masterPath(fingerprint), z.unknown(), {
    method: 'PUT',
    body: { upload },
    signal,
    long: true,
  });
}
