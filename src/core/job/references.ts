import { listShots } from '../cut/master-shots';
import type { Shot } from '../cut/shot';
import type { Source } from '../master/source';
import { type Job, listSources } from './job';

/** A conversion of rates may leave the last shot so many frames short of its master. */
const SHORT = 1;

/**
 * Lists references of a job to what is not there or is there twice, in words: its shape alone does not tell.
 * Empty for a consistent job.
 */
export function referenceFaults(job: Job): string[] {
  const sources = listSources(job);
  const { shots, clips, clip, framings, repairs, ticks } = job.edit;
  const masterIds = new Set(sources.map((source) => source.id));
  const shotIds = new Set(sources.flatMap((source) => listShots(shots, source)).map((shot) => shot.id));
  const faults: string[] = [
    ...twice('master', sources),
    ...twice('shot', shots),
    ...twice('clip', clips),
    ...twice('export', job.exports),
    ...twice('post', job.posts),
    ...sources.flatMap((source) => shotFaults(source, shots)),
    ...missing(
      'a shot',
      shots.map((shot) => shot.master),
      masterIds,
    ),
    ...missing('a repair', Object.keys(repairs), masterIds),
    ...missing(
      'a framing',
      framings.map((framing) => framing.shot),
      shotIds,
    ),
    ...missing('a tick', Object.keys(ticks), shotIds),
    ...missing('the work', [clip], new Set(clips.map((clip) => clip.id))),
  ];
  for (const { id, cut, canvases, canvas, overrides, text } of clips) {
    const canvasIds = new Set(canvases.map((canvas) => canvas.id));
    faults.push(
      ...twice(`canvas of ${id}`, canvases),
      ...missing(`clip ${id}`, [canvas, ...overrides.map((override) => override.canvas)], canvasIds),
      ...missing(
        `a range of ${id}`,
        cut.map((range) => range.master),
        masterIds,
      ),
      ...twice(`text block of ${id}`, text?.blocks ?? []),
      ...twice(`cue of ${id}`, text?.captions.cues ?? []),
      ...missing(
        `words of ${id}`,
        [
          ...(text?.blocks ?? []).flatMap((block) => block.spans ?? []),
          ...(text?.captions.cues ?? []).flatMap((cue) => cue.spans),
          ...(text?.cover ? [text.cover] : []),
        ].map((span) => span.master),
        masterIds,
      ),
      ...missing(
        `a framing of ${id}`,
        canvases.flatMap((canvas) => canvas.detached.map((framing) => framing.shot)),
        shotIds,
      ),
    );
    for (const range of cut) {
      const source = sources.find((master) => master.id === range.master);
      if (source && range.out > source.frames) {
        faults.push(`a range of ${id} ends at ${range.out} of ${source.frames} frames`);
      }
    }
  }
  return faults;
}

function twice(what: string, all: readonly { id: string }[]): string[] {
  const seen = new Set<string>();
  return all.flatMap(({ id }) => (seen.size === seen.add(id).size ? [`${what} ${id} is there twice`] : []));
}

function missing(who: string, named: readonly string[], there: ReadonlySet<string>): string[] {
  return named.filter((id) => !there.has(id)).map((id) => `${who} names ${id}, which is not there`);
}

/** Shots cover their master without a gap and without an overlap. */
function shotFaults({ id, frames }: Source, all: readonly Shot[]): string[] {
  const own = all.filter((shot) => shot.master === id);
  let covered = 0;
  for (const shot of own) {
    if (shot.in !== covered || shot.out <= shot.in)
      return [`shot ${shot.id} begins at ${shot.in}, not at ${covered}`];
    covered = shot.out;
  }
  const whole = own.length === 0 || (covered <= frames && covered >= frames - SHORT);
  return whole ? [] : [`the shots of ${id} end at ${covered} of ${frames} frames`];
}
