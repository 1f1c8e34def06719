import type { Source } from '@core/master/source';
import { computeBounds, type PictureWindow } from '@core/framing/window';
import { storedRect } from '@core/picture/live-area';
import type { PictureRect, Rect, Size } from '@core/picture/size';
import type { SampleWindow } from '@kernel/planes';
import type { TiltedWindow } from '@kernel/tilt';

/** Samples around a window that its filter reaches when nothing is reduced: three lobes and the chroma's share. */
const REACH = 8;

/** Tells whether a source is stored in another orientation than it is shown. */
export const isTurned = ({ rotation, flip }: Pick<Source, 'rotation' | 'flip'>): boolean =>
  rotation !== 0 || flip;

/** A window, 0…1 of the picture, in samples of the picture as it is shown upright. @param stored its size as stored. */
export function toTiltedWindow(
  stored: Size,
  { rotation, picture }: Source,
  window: PictureWindow,
): TiltedWindow {
  const [across, down] = rotation % 180 === 0 ? [stored.width, stored.height] : [stored.height, stored.width];
  return {
    x: window.x * across,
    y: window.y * down,
    width: window.width * across,
    height: window.height * down,
    angle: window.angle,
    sampleAspect: picture.width / across / (picture.height / down),
  };
}

/**
 * The part of the stored picture that drawing a window needs, on even samples: the window with its filter's reach, or
 * all of a picture that is turned or whose fields are drawn anew.
 */
export function computePart(stored: Size, source: Source, window: TiltedWindow): Rect {
  const all = { x: 0, y: 0, width: stored.width, height: stored.height };
  return isTurned(source) || source.deinterlace ? all : findReach(upright(window), stored);
}

/** The live area, 0…1 of the upright picture, in samples of a part of the stored one. */
export function toLiveSamples(part: Rect, stored: Size, source: Source, live: PictureRect): SampleWindow {
  const { x, y, width, height } = storedRect(live, source);
  return {
    x: x * stored.width - part.x,
    y: y * stored.height - part.y,
    width: width * stored.width,
    height: height * stored.height,
  };
}

/** The upright rectangle around a turned window, in the same samples. */
function upright(window: TiltedWindow): SampleWindow {
  const { sampleAspect } = window;
  const live = (window.width * sampleAspect) / window.height;
  const { x, y, width, height } = computeBounds(
    { x: 0, y: 0, width: 1, height: 1, angle: window.angle },
    live,
  );
  return {
    x: window.x + x * window.width,
    y: window.y + y * window.height,
    width: width * window.width,
    height: height * window.height,
  };
}

/** A window with its filter's reach, on even samples, inside the picture. */
function findReach(window: SampleWindow, picture: Size): Rect {
  const along = (start: number, size: number, length: number) => {
    const reach = REACH * Math.max(1, size / 128);
    const from = Math.max(0, Math.floor((start - reach) / 2) * 2);
    const to = Math.min(length, Math.ceil((start + size + reach) / 2) * 2);
    return { from, size: to - from };
  };
  const across = along(window.x, window.width, picture.width);
  const down = along(window.y, window.height, picture.height);
  return { x: across.from, y: down.from, width: across.size, height: down.size };
}
