/** Waits before something is tried again, in seconds: doubled each time, from the first to the most. */
const [FIRST, MAX_DELAY] = [1, 300];
/** How much of a wait is left to chance, so that not all come back at once. */
const CHANCE = 0.25;
/** Longest wait that an outlet may ask for, in seconds. */
const MAX_ASKED = 3600;

/**
 * Seconds to wait before a next try.
 * @param tries that failed so far, from 1. @param asked what the outlet asked for, in seconds. @param chance 0…1.
 */
export function waitBefore(tries: number, asked: number | null, chance: number): number {
  // What an outlet asks for is what it gets: it knows how busy it is.
  if (asked !== null) return Math.min(MAX_ASKED, Math.max(FIRST, asked) * (1 + CHANCE * chance));
  return Math.min(MAX_DELAY, FIRST * 2 ** Math.min(tries - 1, 20)) * (1 - CHANCE + 2 * CHANCE * chance);
}

/**
 * Seconds that a header `Retry-After` asks for: a number of them, or a date (RFC 9110, 10.2.3).
 * @param now milliseconds. @returns null where there is none, or it cannot be read.
 */
export function parseRetryAfter(header: string | null, now: number): number | null {
  if (header === null) return null;
  if (/^\d+$/.test(header.trim())) return Number(header);
  const date = Date.parse(header);
  return Number.isNaN(date) ? null : Math.max(0, (date - now) / 1000);
}
