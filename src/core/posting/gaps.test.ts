import fc from 'fast-check';
import { findNextFreeTime, type PlannedPost, isTooNear } from './gaps';
import { listWeekDays } from './week';

const HOUR = 3_600_000;
const at = (hours: number, account = 'a', id = `${account}${hours}`): PlannedPost => ({
  ...{ id, account, moment: hours * HOUR },
});

describe('the gap between posts of an account', () => {
  it('is told by the nearest of the same account', () => {
    const all = [at(1), at(6), at(7, 'b')];
    expect(isTooNear(at(7.5), all, '4')?.id).toBe('a6');
    expect(isTooNear(at(10), all, '4')).toBeNull();
    expect(isTooNear(at(6), all, '4')).toBeNull();
    expect(isTooNear(at(6.5), all, '0')).toBeNull();
  });

  it('is kept by the next free moment, which is the first', () => {
    const hours = fc.array(fc.integer({ min: 0, max: 60 }), { maxLength: 8 });
    fc.assert(
      fc.property(hours, fc.integer({ min: 0, max: 60 }), (taken, wanted) => {
        const all = taken.map((hour, n) => at(hour, 'a', String(n)));
        const free = findNextFreeTime(at(wanted, 'a', 'new'), all, '4') / HOUR;
        const isFree = (hour: number) => isTooNear(at(hour, 'a', 'new'), all, '4') === null;
        expect(isFree(free)).toBe(true);
        for (let hour = wanted; hour < free; hour += 0.5) expect(isFree(hour)).toBe(false);
      }),
    );
  });
});

describe('a week', () => {
  it('begins on Monday, and has days of 23 and 25 hours where clocks change', () => {
    const hoursOf = (day: string) =>
      listWeekDays(Date.parse(day), 'Europe/Vienna').map(({ from, to }) => (to - from) / HOUR);
    // The last Sundays of March and October (Directive 2000/84/EC, 2 and 3).
    expect(hoursOf('2027-03-25T12:00:00Z')).toEqual([24, 24, 24, 24, 24, 24, 23]);
    expect(hoursOf('2026-10-21T12:00:00Z')).toEqual([24, 24, 24, 24, 24, 24, 25]);
    const [monday] = listWeekDays(Date.parse('2026-11-30T23:30:00Z'), 'UTC');
    expect(new Date(monday!.from).toISOString()).toBe('2026-11-30T00:00:00.000Z');
    expect(listWeekDays(Date.parse('2026-11-30T23:30:00Z'), 'UTC', 1)[0]?.from).toBe(
      Date.parse('2026-12-07'),
    );
  });
});
