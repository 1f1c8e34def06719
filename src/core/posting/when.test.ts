import { toTimestamp, type PostTime, toWhen, whenSchema } from './when';

const utc = (when: PostTime): string => new Date(toTimestamp(when)).toISOString().slice(0, 16);

describe('a time of the clock in a zone', () => {
  // Changes of clocks as the IANA time zone database has them (files europe, northamerica and australasia, 2024a):
  // last Sunday of March and October at 01:00 UTC; second Sunday of March and first of November at 02:00 local time;
  // first Sunday of April and last of September at 02:00 standard time.
  it.each<[string, string, string, string, string]>([
    ['Europe/London', '2026-03-28', '09:00', '2026-03-28T09:00', 'before the clocks go forward'],
    ['Europe/London', '2026-03-29', '00:59', '2026-03-29T00:59', 'a minute before'],
    [
      'Europe/London',
      '2026-03-29',
      '01:30',
      '2026-03-29T01:30',
      'in the hour that is left out: an hour later, 02:30',
    ],
    ['Europe/London', '2026-03-29', '02:00', '2026-03-29T01:00', 'just after'],
    ['Europe/London', '2026-03-30', '09:00', '2026-03-30T08:00', 'the day after'],
    [
      'Europe/London',
      '2026-10-25',
      '01:30',
      '2026-10-25T00:30',
      'in the hour that comes twice: the first time',
    ],
    ['Europe/London', '2026-10-25', '02:00', '2026-10-25T02:00', 'after it'],
    ['America/New_York', '2026-03-08', '01:59', '2026-03-08T06:59', 'a minute before the clocks go forward'],
    ['America/New_York', '2026-03-08', '02:30', '2026-03-08T07:30', 'in the hour that is left out: 03:30'],
    ['America/New_York', '2026-03-08', '03:00', '2026-03-08T07:00', 'just after'],
    [
      'America/New_York',
      '2026-11-01',
      '01:30',
      '2026-11-01T05:30',
      'in the hour that comes twice: the first time',
    ],
    ['America/New_York', '2026-11-01', '02:00', '2026-11-01T07:00', 'after it'],
    [
      'Pacific/Auckland',
      '2026-04-05',
      '02:30',
      '2026-04-04T13:30',
      'in the hour that comes twice: the first time',
    ],
    ['Pacific/Auckland', '2026-04-05', '03:00', '2026-04-04T15:00', 'after it'],
    ['Pacific/Auckland', '2026-09-27', '02:30', '2026-09-26T14:30', 'in the hour that is left out: 03:30'],
    ['Pacific/Auckland', '2026-09-27', '03:00', '2026-09-26T14:00', 'just after'],
  ])('%s, %s %s is %s UTC: %s', (zone, date, time, moment) => {
    expect(utc({ date, time, zone })).toBe(moment);
  });

  it('is the same time of the clock after a change as before it', () => {
    for (const zone of ['Europe/London', 'America/New_York', 'Pacific/Auckland'])
      for (let month = 1; month <= 12; month++) {
        const when = { date: `2026-${String(month).padStart(2, '0')}-15`, time: '18:15', zone };
        expect(toWhen(toTimestamp(when), zone)).toEqual(when);
      }
  });

  it('has a zone that there is, a date and a time', () => {
    const good = { date: '2026-12-24', time: '18:00', zone: 'Europe/London' };
    expect(whenSchema.safeParse(good).success).toBe(true);
    for (const bad of [
      ...[{ zone: 'Nowhere/Here' }, { date: '2026-02-30' }, { time: '24:00' }, { time: '7:00' }],
      ...[{ date: '1960-01-01' }, { date: '9999-12-31' }],
    ])
      expect([bad, whenSchema.safeParse({ ...good, ...bad }).success]).toEqual([bad, false]);
  });
});
