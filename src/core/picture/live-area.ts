import type { Rotation } from './orientation';
import type { LiveRect, PictureRect, Rect, Size, StoredRect } from './size';

/** Size of a source's live area, in square pixels. */
export function liveSize(picture: Size, live: PictureRect): Size {
  return { width: picture.width * live.width, height: picture.height * live.height };
}

/** A rectangle that is given 0…1 of a live area, as 0…1 of the whole picture. */
export function toPicture(rect: LiveRect, live: PictureRect): PictureRect {
  return {
    x: live.x + rect.x * live.width,
    y: live.y + rect.y * live.height,
    width: rect.width * live.width,
    height: rect.height * live.height,
  };
}

/** A rectangle of the picture as it is stored, as one of the picture as it is shown; both 0…1. */
export function uprightRect(
  rect: StoredRect,
  { rotation, flip }: { rotation: Rotation; flip: boolean },
): PictureRect {
  const turned = turnedRect(rect, rotation);
  return flip ? { ...turned, x: 1 - turned.x - turned.width } : turned;
}

/** The other way: a rectangle of the picture as it is shown, as one of the picture as it is stored; both 0…1. */
export function storedRect(
  rect: PictureRect,
  { rotation, flip }: { rotation: Rotation; flip: boolean },
): StoredRect {
  const unflipped = flip ? { ...rect, x: 1 - rect.x - rect.width } : rect;
  return turnedRect(unflipped, ((360 - rotation) % 360) as Rotation);
}

function turnedRect({ x, y, width, height }: Rect, rotation: Rotation): Rect {
  switch (rotation) {
    case 0:
      return { x, y, width, height };
    case 90:
      return { x: 1 - y - height, y: x, width: height, height: width };
    case 180:
      return { x: 1 - x - width, y: 1 - y - height, width, height };
    case 270:
      return { x: y, y: 1 - x - width, width: height, height: width };
  }
}
