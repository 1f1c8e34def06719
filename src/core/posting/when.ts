import { DateTime, IANAZone } from 'luxon';
import { z } from 'zod';

/**
 * A time as somebody set it: of the clock on the wall of a zone. The zone is kept, so that the post goes out at that time
 * of the clock, whatever becomes of daylight saving.
 */
export const whenSchema = z.object({
  date: z.iso.date().refine((date) => date >= '2000' && date < '3000', { error: 'a year is from 2000 on' }),
  time: z.string().regex(/^([01]\d|2[0-3]):[0-5]\d$/, { error: 'a time is HH:MM' }),
  /** Of the IANA time zone database. */
  zone: z.string().refine((zone) => IANAZone.isValidZone(zone), { error: 'no such time zone' }),
});
export type PostTime = z.infer<typeof whenSchema>;

/**
 * The moment of a time, in milliseconds since 1970.
 *
 * A time that a change of clocks leaves out is as much later as the clocks were put forward; of one that comes twice it
 * is the first (as RFC 5545, 3.3.5 has both).
 */
export function toTimestamp({ date, time, zone }: PostTime): number {
  const local = DateTime.fromISO(`${date}T${time}`, { zone });
  // Of a time that comes twice, luxon may give the second: an hour before says so.
  const earlier = local.minus({ hours: 1 });
  const same = earlier.toFormat('yyyy-MM-dd HH:mm') === local.toFormat('yyyy-MM-dd HH:mm');
  return (same ? earlier : local).toMillis();
}

/** The zone of this machine, by its name in the IANA time zone database. */
export const readTimeZone = (): string => Intl.DateTimeFormat().resolvedOptions().timeZone;

/** A moment on the clock of a zone. */
export function toWhen(moment: number, zone: string): PostTime {
  const local = DateTime.fromMillis(moment, { zone });
  return { date: local.toFormat('yyyy-MM-dd'), time: local.toFormat('HH:mm'), zone };
}
