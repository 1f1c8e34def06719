import { readdir, stat } from 'node:fs/promises';
import path from 'node:path';
import { activeClip, type Job } from '../../src/core/job/job';
import { listOwnFamilies } from '../../src/core/render/overlays';
import type { RenderPlan } from '../../src/core/render/plan';
import { ownHash } from '../../src/core/words/families';
import { sha256 } from '../sha256';

/**
 * Error for a command that makes no sense, or for something that is missing: its message is printed, and the
 * program ends with a number.
 */
export class CommandError extends Error {
  constructor(
    readonly code: 2 | 3,
    message: string,
  ) {
    super(message);
  }
}

/** Where the masters that a clip takes from lie: by their names first, then by what is in them. */
export async function findMasters(folder: string, job: Job): Promise<Record<string, string>> {
  const used = new Set(activeClip(job.edit).cut.map(({ master }) => master));
  const names = await listNames(folder);
  const found: Record<string, string> = {};
  for (const { id, fileName, fingerprint, bytes } of job.masters) {
    if (!used.has(id)) continue;
    const order = [...names].sort((a, b) => Number(b === fileName) - Number(a === fileName));
    for (const name of order) {
      const file = path.join(folder, name);
      const facts = await stat(file);
      if (!facts.isFile() || facts.size !== bytes || (await sha256(file)) !== fingerprint) continue;
      found[fingerprint] = file;
      break;
    }
    if (!found[fingerprint])
      throw new CommandError(3, `${fileName} is not in ${folder}. Name its folder with --masters.`);
  }
  return found;
}

/** Where the fonts of a person's own lie that a plan's words have. */
export async function findFonts(folder: string, plan: RenderPlan): Promise<Record<string, string>> {
  const families = listOwnFamilies(plan.overlays);
  if (families.length === 0) return {};
  const found: Record<string, string> = {};
  for (const name of (await listNames(folder)).filter((name) => /\.(ttf|otf|woff2)$/i.test(name)))
    found[await sha256(path.join(folder, name))] = path.join(folder, name);
  if (families.some((family) => !Object.keys(found).some((print) => print.startsWith(ownHash(family)))))
    throw new CommandError(
      3,
      `A font of your own that the words have is not in ${folder}: put its file there.`,
    );
  return found;
}

const listNames = (folder: string): Promise<string[]> =>
  readdir(folder).catch(() => {
    throw new CommandError(2, `The folder ${folder} cannot be read.`);
  });
