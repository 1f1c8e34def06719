import { DateTime } from 'luxon';

/** A day of a week, in milliseconds; it ends before the next begins. */
export interface Day {
  from: number;
  to: number;
}

/**
 * The seven days of a week, from Monday (ISO 8601), as the clocks of a zone go: one of 23 or 25 hours where they change.
 * @param later how many weeks after the one that a moment lies in.
 */
export function listWeekDays(moment: number, zone: string, later = 0): Day[] {
  const monday = DateTime.fromMillis(moment, { zone }).startOf('week').plus({ weeks: later });
  return Array.from({ length: 7 }, (_, n) => ({
    from: monday.plus({ days: n }).toMillis(),
    to: monday.plus({ days: n + 1 }).toMillis(),
  }));
}
