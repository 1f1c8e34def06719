import { parseFingerprint } from '../src/core/master/fingerprint';
import { createHash } from 'node:crypto';
import { readFileSync } from 'node:fs';
import path from 'node:path';
import { newJob, type Job } from '../src/core/job/job';
import { SHIPPED_SHEETS } from '../src/core/outlets/shipped';
import { probeFile } from '../src/media/read/probe';
import { decodeWithFfmpeg } from '../server/render/decoders';

/** A new job of a film, as bringing it in makes one. */
export async function jobOf(file: string): Promise<Job> {
  decodeWithFfmpeg();
  const bytes = readFileSync(file);
  const facts = await probeFile(new File([bytes], path.basename(file)));
  const fingerprint = parseFingerprint(createHash('sha256').update(bytes).digest('hex'));
  const master = { ...facts, fingerprint, id: fingerprint.slice(0, 12) };
  return newJob({
    id: 'job-1',
    title: 'Edit',
    now: '2026-11-28T10:00:00.000Z',
    master,
    sheets: SHIPPED_SHEETS,
  });
}
