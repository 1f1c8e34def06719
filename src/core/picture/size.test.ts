import { toPicture } from './live-area';
import { type LiveRect, type PictureRect, ratioLabel } from './size';

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

it('has rectangles of a space each, which do not mix: the types hold it', () => {
  const live: LiveRect = { x: 0.25, y: 0, width: 0.5, height: 1 };
  const area: PictureRect = { x: 0, y: 0.1, width: 1, height: 0.8 };
  const picture: PictureRect = toPicture(live, area);
  // @ts-expect-error: a rectangle of the picture is none of the live area
  const wrong: LiveRect = picture;
  // @ts-expect-error: nor may the two be given the other way round
  const swapped = toPicture(area, live);
  expect(wrong).toEqual({ x: 0.25, y: 0.1, width: 0.5, height: 0.8 });
  expect(swapped).toEqual({ x: 0.25, y: 0.1, width: 0.5, height: 0.8 });
});
