import { useEffect, useRef } from 'react';
import { Gesture } from 'react-native-gesture-handler';
import type { View } from 'react-native';
import type { Framing } from '@core/framing/framing';
import { useFramingUi } from '@state/framing';
import type { FramingTools } from './use-framing';

/** Zoom of one notch of a wheel, as the exponent per pixel that it scrolls. */
const WHEEL = 0.0015;
/** How near a window snaps, in pixels of the screen. */
const SNAP_REACH = 7;

type Vector = { x: number; y: number };

/** Drag that does not move the window: called with every place, and with whether it is the last. */
export type OtherDrag = (to: Vector, done: boolean) => void;

interface Surface {
  /** Computes the movement of the window for a drag by some pixels of the screen, 0…1 of the picture. */
  moveOf(by: Vector): Vector;
  /** The place in the picture under a point of the surface, in pixels. */
  placeOf(point: Vector): Vector;
  /** Told where a touch begins; what a drag from there does, or null when it moves the window. */
  begin?(point: Vector): OtherDrag | null;
}

/** Drag to move, pinch or wheel to zoom, double tap to point, on one of the pictures of the framing page. */
export function useWindowGestures(tools: FramingTools, surface: Surface) {
  const from = useRef<Framing>(tools.framing);
  const start = useRef<Vector>({ x: 0, y: 0 });
  const other = useRef<OtherDrag | null>(null);
  const area = useRef<View>(null);
  const latest = useRef({ tools, surface });
  useEffect(() => {
    latest.current = { tools, surface };
  });
  const snap = (): Vector | undefined => {
    if (!useFramingUi.getState().snaps) return undefined;
    const reach = latest.current.surface.moveOf({ x: SNAP_REACH, y: SNAP_REACH });
    return { x: Math.abs(reach.x), y: Math.abs(reach.y) };
  };
  const drag = (to: Vector, done: boolean) => {
    if (other.current) return other.current(to, done);
    const { tools: now, surface: here } = latest.current;
    // From where the finger came down: not from where the drag was known to be one.
    const by = { x: to.x - start.current.x, y: to.y - start.current.y };
    now.move(from.current, here.moveOf(by), done, snap());
  };
  const pan = Gesture.Pan()
    .runOnJS(true)
    .minDistance(2)
    .maxPointers(1)
    .onBegin(({ x, y }) => {
      start.current = { x, y };
      other.current = latest.current.surface.begin?.({ x, y }) ?? null;
    })
    .onStart(() => {
      from.current = latest.current.tools.framing;
    })
    .onUpdate(({ x, y }) => drag({ x, y }, false))
    .onEnd(({ x, y }) => drag({ x, y }, true));
  const pinch = Gesture.Pinch()
    .runOnJS(true)
    .onStart(() => {
      from.current = latest.current.tools.framing;
    })
    .onUpdate(({ scale, focalX, focalY }) =>
      tools.zoom(from.current, scale, surface.placeOf({ x: focalX, y: focalY }), false),
    )
    .onEnd(({ scale, focalX, focalY }) =>
      tools.zoom(from.current, scale, surface.placeOf({ x: focalX, y: focalY }), true),
    );
  const tap = Gesture.Tap()
    .runOnJS(true)
    .numberOfTaps(2)
    .onEnd(({ x, y }) => tools.point(surface.placeOf({ x, y })));
  useEffect(() => {
    // On the web target a view is its element.
    const element = area.current as unknown as HTMLElement | null;
    const wheel = (event: WheelEvent) => {
      event.preventDefault();
      const box = (event.currentTarget as HTMLElement).getBoundingClientRect();
      const { tools: now, surface: here } = latest.current;
      now.nudgeZoom(
        Math.exp(-event.deltaY * WHEEL),
        here.placeOf({ x: event.clientX - box.left, y: event.clientY - box.top }),
      );
    };
    element?.addEventListener('wheel', wheel, { passive: false });
    return () => element?.removeEventListener('wheel', wheel);
  }, []);
  return { area, gesture: Gesture.Race(pinch, tap, pan) };
}
