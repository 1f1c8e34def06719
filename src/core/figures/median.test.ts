import { computeMedian } from './median';

it('is the middle value, whatever the order, and between two the mean', () => {
  expect(computeMedian([9, 1, 5])).toBe(5);
  expect(computeMedian([9, 1, 5, 7])).toBe(6);
  expect(computeMedian([4])).toBe(4);
  expect(computeMedian([])).toBeNaN();
});
