import { z } from 'zod';
import { boundedInt, boundedNumber } from '../figures/bounded';

/** Limits that captions are held to. */
export const readingLimitsSchema = z.object({
  /** Graphemes on a line, and lines of a cue. */
  characters: boundedInt(10, 80),
  lines: boundedInt(1, 4),
  /** Graphemes a second. */
  speed: boundedNumber(5, 40),
  /** Seconds that a cue stays, and that lie between two. */
  shortest: boundedNumber(0.2, 5),
  longest: boundedNumber(1, 20),
  gap: boundedNumber(0, 2),
});
export type ReadingLimits = z.infer<typeof readingLimitsSchema>;
export type ReadingLimit = keyof ReadingLimits;

/**
 * Default limits, and the source of each. From memory of the published guidelines: none of them could be
 * opened on the machine that this was written on.
 */
export const DEFAULT_READING_LIMITS: ReadingLimits = {
  characters: 37,
  lines: 2,
  speed: 17,
  shortest: 0.83,
  longest: 7,
  gap: 0.08,
};
export const LIMIT_SOURCES: Record<ReadingLimit, string> = {
  characters: 'EBU Teletext (ETS 300 706) has 40 columns, of which about 37 hold text; from memory',
  lines: 'ISO/IEC 20071-23:2018 and broadcasters’ guidelines: two lines; from memory',
  speed:
    'Ofcom’s guidance on subtitles: 160 to 180 words a minute, about 17 characters a second; from memory',
  shortest: 'Five sixths of a second, 20 frames at 24: common practice, no source',
  longest: 'Seven seconds: common practice, no source',
  gap: 'Two frames at 25: common practice, no source',
};
