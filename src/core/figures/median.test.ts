import { median } from './median';

it('is the middle value, whatever the order, and between two the mean', () => {
  expect(median([9, 1, 5])).toBe(5);
  expect(median([9, 1, 5, 7])).toBe(6);
  expect(median([4])).toBe(4);
  expect(median([])).toBeNaN();
});
