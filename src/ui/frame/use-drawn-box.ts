import { useState } from 'react';
import { followDrawn, useFramingUi } from '@state/framing';
import { useJob } from '../job/job-context';
import type { FramingTools } from './use-framing';
import type { OtherDrag } from './use-window-gestures';

/** A box that is smaller than this share of the picture is a slip of the finger. */
const MIN_SIDE = 0.02;

interface Box {
  x: number;
  y: number;
  width: number;
  height: number;
}

/** A box drawn on the master around what is to be followed, in pixels of the screen while it is drawn. */
export function useDrawnBox(tools: FramingTools, width: number, height: number) {
  const job = useJob();
  const wishes = useFramingUi((state) => state.wishes);
  const [box, setBox] = useState<Box | null>(null);
  const drag = (from: { x: number; y: number }): OtherDrag => {
    const { shot, track, owner, frame } = tools;
    const inside = (value: number, most: number) => Math.min(most, Math.max(0, value));
    return (to, done) => {
      const [x1, x2] = [inside(from.x, width), inside(to.x, width)];
      const [y1, y2] = [inside(from.y, height), inside(to.y, height)];
      const drawn = {
        x: Math.min(x1, x2),
        y: Math.min(y1, y2),
        width: Math.abs(x2 - x1),
        height: Math.abs(y2 - y1),
      };
      setBox(done ? null : drawn);
      if (!done || drawn.width < MIN_SIDE * width || drawn.height < MIN_SIDE * height) return;
      useFramingUi.setState({ boxing: false });
      const part = {
        ...{ x: drawn.x / width, y: drawn.y / height },
        ...{ width: drawn.width / width, height: drawn.height / height },
      };
      void followDrawn(job.id, { shot, track, owner }, { frame, box: part }, wishes);
    };
  };
  return { box, drag };
}
