import { dayLabel } from './day-label';

it.each([
  [new Date(2026, 10, 26, 14, 5), 'today, 14:05'],
  [new Date(2026, 10, 25, 23, 59), 'yesterday, 23:59'],
  [new Date(2026, 10, 3, 9, 0), '3 Nov 2026'],
  [new Date(2025, 11, 31, 9, 0), '31 Dec 2025'],
])('names %s from the evening of 26 November', (moment, label) => {
  expect(dayLabel(moment, new Date(2026, 10, 26, 20, 0))).toBe(label);
});
