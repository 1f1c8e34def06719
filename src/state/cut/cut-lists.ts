import { toCut, toShots, type ListMaster, type ListNote, type ReadList } from '@core/interchange/cut-list';
import { readEdl, writeEdl } from '@core/interchange/edl';
import { readOtio, writeOtio } from '@core/interchange/otio';
import { activeCanvas, clipName } from '@core/job/clip';
import { activeClip, type Job, listSources } from '@core/job/job';
import { listShots } from '@core/cut/master-shots';
import type { Source } from '@core/master/source';
import { dispatch } from '../job';

/** Use of a list that was read. */
export type ListUse = 'shots' | 'cut';

/** A list that was read, waiting to be told what it is for. */
export interface OpenList {
  fileName: string;
  list: ReadList;
}

/** Largest list that is read, in bytes: a long edit has a few hundred kilobytes. */
const MAX_BYTES = 20_000_000;

const listMasters = (job: Job): ListMaster[] =>
  listSources(job).map(({ id, fileName, rate, frames }) => ({ id, fileName, rate, frames }));

/** Reads a cut list by what is in it, whatever its name says. */
export async function openList(file: File, source: Source): Promise<OpenList> {
  if (file.size > MAX_BYTES) {
    const reason = `is ${Math.round(file.size / 1e6)} MB, too large for a cut list`;
    return {
      fileName: file.name,
      list: { title: '', events: [], notes: [{ line: 1, reason }], recordStart: 0 },
    };
  }
  const text = await file.text();
  const read = /^\s*[[{]/.test(text) ? readOtio : readEdl;
  return { fileName: file.name, list: read(text, source.rate) };
}

/** Takes a list as shots of a master, or as the clip's cut. @returns what could not be used. */
export function takeList(job: Job, source: Source, { list }: OpenList, use: ListUse): ListNote[] {
  if (use === 'shots') {
    const { boundaries, notes } = toShots(list, source);
    const { id: master, frames } = source;
    const old = listShots(job.edit.shots, source);
    dispatch(job.id, { type: 'set-shots', act: 'list', master, old, boundaries, frames });
    return [...list.notes, ...notes];
  }
  const { cut, notes } = toCut(list, listMasters(job));
  if (cut.length > 0) dispatch(job.id, { type: 'set-cut', act: 'list', cut });
  return [...list.notes, ...notes];
}

/** The clip's cut as a file of an open form. */
export function listFile(job: Job, form: 'otio' | 'edl'): File {
  const clip = activeClip(job.edit);
  const title = clipName(clip);
  const masters = listMasters(job);
  const text =
    form === 'otio'
      ? writeOtio(title, clip.cut, masters)
      : writeEdl(title, clip.cut, masters, activeCanvas(clip).rate);
  const base = title.replace(/[^\p{Letter}\p{Number}]+/gu, '-').toLowerCase() || 'cut';
  return new File([text], `${base}.${form}`, { type: form === 'otio' ? 'application/json' : 'text/plain' });
}

/** A master's shots as a file of an open form: one event a shot. */
export function shotListFile(job: Job, source: Source, form: 'otio' | 'edl'): File {
  const cut = listShots(job.edit.shots, source).map((shot) => ({
    master: source.id,
    in: shot.in,
    out: shot.out,
  }));
  const masters = listMasters(job);
  const text =
    form === 'otio' ? writeOtio(job.title, cut, masters) : writeEdl(job.title, cut, masters, source.rate);
  return new File([text], `shots.${form}`, { type: form === 'otio' ? 'application/json' : 'text/plain' });
}
