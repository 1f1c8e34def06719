import { ratioLabel } from './size';

// Ratios of the trade's canvases (common practice, no source).
it.each([
  [1080, 1920, '9:16'],
  [1080, 1080, '1:1'],
  [1080, 1350, '4:5'],
  [1920, 1080, '16:9'],
  [640, 480, '4:3'],
  [1200, 628, '1.91:1'],
  [628, 1200, '1:1.91'],
])('%i×%i is %s', (width, height, label) => {
  expect(ratioLabel({ width, height })).toBe(label);
});
