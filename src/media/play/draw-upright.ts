import type { PictureWindow } from '@core/framing/window';
import type { Source } from '@core/master/source';
import { storedRect } from '@core/picture/live-area';
import type { PictureRect, Rect } from '@core/picture/size';
import type { Picture } from './preview-picture';

/** Orientation of a source that is drawn: rotation and flip. */
export type Orientation = Pick<Source, 'rotation' | 'flip'>;

/**
 * Draws a window of a decoded frame upright, by the source's own rotation and flip instead of the frame's.
 * @param window 0…1 of the upright picture. @param live the part of that picture that may show.
 * @param to in pixels of the canvas.
 */
export function drawUpright(
  ink: OffscreenCanvasRenderingContext2D,
  picture: Pick<Picture, 'image' | 'size'>,
  source: Orientation & Pick<Source, 'picture'>,
  window: PictureWindow,
  live: PictureRect,
  to: Rect,
): void {
  if (window.angle !== 0) return drawTilted(ink, picture, source, window, live, to);
  const { image, size } = picture;
  const { rotation, flip } = source;
  const from = storedRect(window, source);
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

/** A turned window: the live area is turned back under it, and only what lies in the window is kept. */
function drawTilted(
  ink: OffscreenCanvasRenderingContext2D,
  picture: Pick<Picture, 'image' | 'size'>,
  source: Orientation & Pick<Source, 'picture'>,
  window: PictureWindow,
  live: PictureRect,
  to: Rect,
): void {
  const { width, height } = source.picture;
  const scale = to.width / (window.width * width);
  ink.save();
  ink.beginPath();
  ink.rect(to.x, to.y, to.width, to.height);
  ink.clip();
  ink.translate(to.x + to.width / 2, to.y + to.height / 2);
  ink.rotate((-window.angle * Math.PI) / 180);
  ink.scale(scale, scale);
  const centre = { x: window.x + window.width / 2, y: window.y + window.height / 2 };
  drawUpright(ink, picture, source, { ...live, angle: 0 }, live, {
    x: (live.x - centre.x) * width,
    y: (live.y - centre.y) * height,
    width: live.width * width,
    height: live.height * height,
  });
  ink.restore();
}
