import { useEffect, useRef } from 'react';
import { Gesture } from 'react-native-gesture-handler';
import type { View } from 'react-native';
import type { Framing } from '@core/framing/framing';
import type { FramingTools } from './use-framing';

/** Zoom of one notch of a wheel, as the exponent per pixel that it scrolls. */
const WHEEL = 0.0015;

interface Surface {
  /** Picture lengths (0…1) that one pixel of dragging moves the window, across and down. */
  perPixel: { x: number; y: number };
  /** The place in the picture under a point of the surface, in pixels. */
  placeOf(x: number, y: number): { x: number; y: number };
}

/** Drag to move, pinch or wheel to zoom, on one of the two pictures of the framing page. */
export function useWindowGestures(tools: FramingTools, surface: Surface) {
  const from = useRef<Framing>(tools.framing);
  const area = useRef<View>(null);
  const latest = useRef({ tools, surface });
  useEffect(() => {
    latest.current = { tools, surface };
  });
  const begin = () => {
    from.current = tools.framing;
  };
  const by = (x: number, y: number) => ({ x: x * surface.perPixel.x, y: y * surface.perPixel.y });
  const drag = Gesture.Pan()
    .runOnJS(true)
    .minDistance(2)
    .maxPointers(1)
    .onBegin(begin)
    .onUpdate(({ translationX, translationY }) =>
      tools.move(from.current, by(translationX, translationY), false),
    )
    .onEnd(({ translationX, translationY }) =>
      tools.move(from.current, by(translationX, translationY), true),
    );
  const pinch = Gesture.Pinch()
    .runOnJS(true)
    .onBegin(begin)
    .onUpdate(({ scale, focalX, focalY }) =>
      tools.zoom(from.current, scale, surface.placeOf(focalX, focalY), false),
    )
    .onEnd(({ scale, focalX, focalY }) =>
      tools.zoom(from.current, scale, surface.placeOf(focalX, focalY), true),
    );
  useEffect(() => {
    // On the web target a view is its element.
    const element = area.current as unknown as HTMLElement | null;
    const wheel = (event: WheelEvent) => {
      event.preventDefault();
      const box = (event.currentTarget as HTMLElement).getBoundingClientRect();
      const { tools: now, surface: here } = latest.current;
      now.nudgeZoom(
        Math.exp(-event.deltaY * WHEEL),
        here.placeOf(event.clientX - box.left, event.clientY - box.top),
      );
    };
    element?.addEventListener('wheel', wheel, { passive: false });
    return () => element?.removeEventListener('wheel', wheel);
  }, []);
  return { area, gesture: Gesture.Race(pinch, drag) };
}
