import type { Source } from '@core/job/source';
import type { Rect } from '@core/picture/size';
import type { Picture } from './preview-picture';

/** What turning and mirroring a source needs to be drawn. */
export type Orientation = Pick<Source, 'rotation' | 'flip'>;

/** A window of the upright picture as a window of the picture as it is stored; both 0…1. */
function storedWindow(window: Rect, { rotation, flip }: Orientation): Rect {
  const { y, width, height } = window;
  const x = flip ? 1 - window.x - width : window.x;
  switch (rotation) {
    case 0:
      return { x, y, width, height };
    case 90:
      return { x: y, y: 1 - x - width, width: height, height: width };
    case 180:
      return { x: 1 - x - width, y: 1 - y - height, width, height };
    case 270:
      return { x: 1 - y - height, y: x, width: height, height: width };
  }
}

/**
 * Draws a window of a decoded frame upright, by the source's own rotation and flip instead of the frame's.
 * @param window 0…1 of the upright picture. @param to in pixels of the canvas.
 */
export function drawUpright(
  ink: OffscreenCanvasRenderingContext2D,
  { image, size }: Pick<Picture, 'image' | 'size'>,
  orientation: Orientation,
  window: Rect,
  to: Rect,
): void {
  const { rotation, flip } = orientation;
  const from = storedWindow(window, orientation);
  const [across, down] = rotation % 180 === 0 ? [to.width, to.height] : [to.height, to.width];
  ink.save();
  ink.translate(to.x + to.width / 2, to.y + to.height / 2);
  if (flip) ink.scale(-1, 1);
  ink.rotate((rotation * Math.PI) / 180);
  ink.drawImage(
    image,
    from.x * size.width,
    from.y * size.height,
    from.width * size.width,
    from.height * size.height,
    -across / 2,
    -down / 2,
    across,
    down,
  );
  ink.restore();
}
