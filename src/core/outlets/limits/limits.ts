import { z } from 'zod';
import { audienceLimit } from './audience';
import { barsLimit } from './bars';
import { bitRateLimit } from './bit-rate';
import { childrenLimit } from './children';
import { codecLimit } from './codec';
import { containerLimit } from './container';
import { coverLimit } from './cover';
import { damagedLimit } from './damaged';
import { descriptionLimit } from './description';
import { fileSizeLimit } from './file-size';
import { lengthLimit } from './length';
import { levelLimit } from './level';
import type { LimitValues } from './limit';
import { linksLimit } from './links';
import { longVideoLimit } from './long-video';
import { pixelsLimit } from './pixels';
import { rateLimit } from './rate';
import { scanLimit } from './scan';
import { sizeLimit } from './size';
import { soundLimit } from './sound';
import { tagsLimit } from './tags';
import { titleLimit } from './title';

/** Every limit of a placement, in the order of an outlet's refusals: a file and a line each. */
export const LIMITS = [
  containerLimit,
  damagedLimit,
  sizeLimit,
  lengthLimit,
  rateLimit,
  fileSizeLimit,
  codecLimit,
  levelLimit,
  bitRateLimit,
  scanLimit,
  pixelsLimit,
  barsLimit,
  soundLimit,
  titleLimit,
  descriptionLimit,
  linksLimit,
  tagsLimit,
  audienceLimit,
  childrenLimit,
  coverLimit,
  longVideoLimit,
] as const;

/** Names that refusals give to limits. */
export type LimitName = (typeof LIMITS)[number]['name'];

type Intersection<U> = (U extends unknown ? (one: U) => void : never) extends (all: infer A) => void
  ? A
  : never;
type Shapes = Intersection<(typeof LIMITS)[number]['shape']>;
/** Schemas of all limits: those that lie together under one name are one object. */
type LimitSchemas = {
  [K in keyof Shapes]: Shapes[K] extends z.ZodType
    ? Shapes[K]
    : z.ZodObject<{ [P in keyof Shapes[K]]: Shapes[K][P] extends z.ZodType ? Shapes[K][P] : never }>;
};

/** Puts parts of limits together: what several have under one name becomes one object. */
function mergeParts(parts: readonly object[], isWhole: (part: unknown) => boolean): Record<string, unknown> {
  const merged: Record<string, unknown> = {};
  for (const part of parts)
    for (const [key, value] of Object.entries(part) as [string, unknown][])
      merged[key] = isWhole(value) ? value : { ...(merged[key] as object | undefined), ...(value as object) };
  return merged;
}

/** Builds the schemas of everything that limits say of a placement. */
export function buildLimitSchemas(limits: readonly { shape: object }[] = LIMITS): LimitSchemas {
  const merged = mergeParts(
    limits.map(({ shape }) => shape),
    (value) => value instanceof z.ZodType,
  );
  const whole = Object.entries(merged).map(
    ([key, value]) => [key, value instanceof z.ZodType ? value : z.object(value as z.ZodRawShape)] as const,
  );
  return Object.fromEntries(whole) as unknown as LimitSchemas;
}

/** Limits of a placement that asks for as little as one can. */
export const DEFAULT_LIMIT_VALUES = mergeParts(
  LIMITS.map(({ plain }) => plain),
  (value) => typeof value !== 'object' || value === null || Array.isArray(value),
) as Intersection<LimitValues<(typeof LIMITS)[number]['shape']>>;
