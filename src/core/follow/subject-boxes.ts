import type { Rect } from '../picture/size';
import type { SubjectKind } from './evidence';
import { type LiveTrack, findTrackPoint } from './track';

/** Where a followed subject is at one step. */
interface VisibleSubject {
  box: Rect;
  confidence: number;
  kind: SubjectKind;
}

/** Box that has to stay in view at one step, and how sure that is. */
export interface WantedBox {
  /** 0…1 of the live area; null where nobody knows. */
  box: Rect | null;
  /** Point that belongs at the anchor. */
  anchor: { x: number; y: number } | null;
  /** 0…1. */
  confidence: number;
  /** The subjects are too far from each other for one window: only the preferred one is held. */
  apart: boolean;
}

/** In the upper part of a person lies what one looks at. */
const EYES = 0.3;

const toAnchor = ({ box, kind }: VisibleSubject) => ({
  x: box.x + box.width / 2,
  y: box.y + box.height * (kind === 'person' ? EYES : 0.5),
});

/** The smallest rectangle around some. */
function around(boxes: readonly Rect[]): Rect {
  const x = Math.min(...boxes.map((box) => box.x));
  const y = Math.min(...boxes.map((box) => box.y));
  return {
    ...{ x, y },
    width: Math.max(...boxes.map((box) => box.x + box.width)) - x,
    height: Math.max(...boxes.map((box) => box.y + box.height)) - y,
  };
}

/**
 * Finds the boxes that have to stay in view at some frames: all subjects where they fit into the room
 * together, else those that are preferred.
 *
 * @param subjects the preferred one first; boxes are 0…1 of the live area. @param room that a window gives, 0…1.
 * @param reach frames by which samples are apart: so far a subject reaches past its first and last.
 */
export function findWantedBoxes(
  subjects: readonly LiveTrack[],
  frames: readonly number[],
  room: { width: number; height: number },
  reach: number,
): WantedBox[] {
  return frames.map((frame) => {
    const seen = subjects.flatMap((track): VisibleSubject[] => {
      const point = findTrackPoint(track, frame, reach);
      return point ? [{ ...point, kind: track.kind }] : [];
    });
    let held = seen.slice(0, 1);
    for (const next of seen.slice(1)) {
      const box = around([...held, next].map((other) => other.box));
      if (box.width <= room.width && box.height <= room.height) held = [...held, next];
    }
    const [first] = held;
    if (!first) return { box: null, anchor: null, confidence: 0, apart: false };
    const anchors = held.map(toAnchor);
    const mean = (values: number[]) => values.reduce((sum, value) => sum + value, 0) / values.length;
    return {
      box: around(held.map(({ box }) => box)),
      anchor: { x: mean(anchors.map(({ x }) => x)), y: mean(anchors.map(({ y }) => y)) },
      confidence: Math.min(...held.map(({ confidence }) => confidence)),
      apart: held.length < seen.length,
    };
  });
}
