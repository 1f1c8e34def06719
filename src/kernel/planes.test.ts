import { isPixelLayout, pictureShape } from './planes';

// Plane sizes by the WebCodecs specification, "Pixel Format".
it.each([
  ['I420', 1920, 1080, 1920 * 1080 * 1.5],
  ['NV12', 1920, 1080, 1920 * 1080 * 1.5],
  ['I422', 1920, 1080, 1920 * 1080 * 2],
  ['I444', 1920, 1080, 1920 * 1080 * 3],
  ['I420P10', 1920, 1080, 1920 * 1080 * 3],
  ['I420', 321, 181, 321 * 181 + 2 * 161 * 91],
] as const)('%s of %i×%i takes %d bytes', (layout, width, height, size) => {
  const picture = pictureShape(layout, width, height, 1);
  expect(picture.size).toBe(size);
  const last = picture.planes[picture.planes.length - 1]!;
  expect(last.offset + last.stride * last.height).toBe(size);
});

it('pads rows, and refuses sides that are no picture', () => {
  expect(pictureShape('I420', 1080, 1920, 16).planes.map((plane) => plane.stride)).toEqual([1088, 544, 544]);
  for (const side of [0, -2, 1.5, 16385])
    expect(() => pictureShape('I420', side, 100, 1)).toThrow(RangeError);
});

it('knows what it can read', () => {
  expect(['I420', 'NV12', 'I444P12'].every(isPixelLayout)).toBe(true);
  expect([null, 'RGBA', 'BGRX'].some(isPixelLayout)).toBe(false);
});
