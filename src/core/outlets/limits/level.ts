import { boundedInt } from '../../figures/bounded';
import { numberField } from './field';
import { declareLimit } from './limit';

/** Writes a level of H.264. @param level times ten: 42 is 4.2. */
export const levelName = (level: number): string => (level / 10).toFixed(1);

/** Judges a level of H.264, times ten; null for other codecs. */
export const judgeLevel = (
  level: number | null,
  { video }: { video: { mostLevel: number } },
): 'over' | null => (level !== null && level > video.mostLevel ? 'over' : null);

/** Limit on the level of H.264, stored times ten: 42 is 4.2. */
export const levelLimit = declareLimit({
  name: 'level',
  shape: { video: { mostLevel: boundedInt(10, 62) } },
  plain: { video: { mostLevel: 62 } },
  section: 'File and picture',
  fields: [{ path: 'video.mostLevel', label: 'Highest level of H.264', as: numberField('', 10) }],
  refuseFile: ({ video }, placement) =>
    judgeLevel(video.level, placement) &&
    `The picture needs level ${levelName(video.level ?? 0)} of H.264; at most ${levelName(placement.video.mostLevel)} is taken.`,
});
