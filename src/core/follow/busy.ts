import type { PictureRect } from '../picture/size';
import type { Sample } from './evidence';

/** The share of all movement that may lie outside, on each side. */
const LEFT_OUT = 0.1;

/** Where most of what moves in some samples is, 0…1 of the picture; null where nothing moves. */
export function busyPart(samples: readonly Sample[]): PictureRect | null {
  const parts = samples.flatMap(({ seen }) => seen.filter(({ kind }) => kind === 'motion'));
  if (parts.length === 0) return null;
  const computeWeight = ({ box, confidence }: (typeof parts)[number]) => box.width * box.height * confidence;
  const share = (of: (box: PictureRect) => number, at: number) => {
    const sorted = [...parts].sort((a, b) => of(a.box) - of(b.box));
    const total = sorted.reduce((sum, part) => sum + computeWeight(part), 0);
    let sum = 0;
    const found = sorted.find((part) => (sum += computeWeight(part)) >= at * total);
    return of((found ?? (sorted[sorted.length - 1] as (typeof parts)[number])).box);
  };
  const x = Math.max(
    0,
    share((box) => box.x, LEFT_OUT),
  );
  const y = Math.max(
    0,
    share((box) => box.y, LEFT_OUT),
  );
  const right = Math.min(
    1,
    share((box) => box.x + box.width, 1 - LEFT_OUT),
  );
  const bottom = Math.min(
    1,
    share((box) => box.y + box.height, 1 - LEFT_OUT),
  );
  return { x, y, width: Math.max(0.01, right - x), height: Math.max(0.01, bottom - y) };
}
