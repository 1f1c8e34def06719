import { createHash } from 'node:crypto';
import { readFileSync } from 'node:fs';
import path from 'node:path';
import type { Job } from '../src/core/job/job';
import { NO_TEXT } from '../src/core/words/clip-text';
import { plainBlock } from '../src/core/words/text-block';

const file = path.resolve(__dirname, '../public/fonts/caveat-latin-400-normal.woff2');
const fingerprint = createHash('sha256').update(readFileSync(file)).digest('hex');

/** A font as a person has it of their own: the same as one that ships. */
export const OWN_FONT = { file, fingerprint, family: `own-${fingerprint.slice(0, 16)}`, likeness: 'hand' };

/** A job with words on its picture, in a font of the person's own. */
export function wordedJob(job: Job): Job {
  const block = plainBlock('words', 'Low tide');
  const blocks = [{ ...block, style: { ...block.style, family: OWN_FONT.family } }];
  const clips = job.edit.clips.map((clip) => ({ ...clip, text: { ...NO_TEXT, blocks } }));
  return { ...job, edit: { ...job.edit, clips } };
}
