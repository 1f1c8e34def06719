import type { Audience } from '../outlets/audience';
import { listTargets } from '../outlets/outlets';
import type { Sheets } from '../outlets/rule-sheet';
import type { Clip, GoneClip } from './clip';

/** Who may see a clip's post at a placement: chosen for that one, else for all. @param key of the placement. */
export const chosenAudience = (
  { audience, audiences }: Pick<Clip | GoneClip, 'audience' | 'audiences'>,
  key: string,
): Audience => audiences?.[key] ?? audience;

/** A clip whose audience was chosen. @param key of the one placement that it is for; without one for all others. */
export function withAudience(clip: Clip, audience: Audience, key?: string): Clip {
  return key === undefined
    ? { ...clip, audience }
    : { ...clip, audiences: { ...clip.audiences, [key]: audience } };
}

/**
 * The placement that a choice is for alone, since it has an audience of its own or another one does not know the
 * audience; undefined where the choice suits all that have none of their own.
 */
export function findPlacementByChoice(
  clip: Clip,
  key: string,
  audience: Audience,
  sheets: Sheets,
): string | undefined {
  if (clip.audiences?.[key]) return key;
  const others = clip.canvases
    .flatMap((canvas) => listTargets(sheets, canvas))
    .filter((target) => clip.audiences?.[target.key] === undefined);
  return others.every(({ placement }) => placement.audiences.includes(audience)) ? undefined : key;
}
