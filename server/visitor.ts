import { randomBytes } from 'node:crypto';
import type { Request, Response } from 'express';
import { parse } from 'cookie';

const NAME = 'gusset_visitor';
const SHAPE = /^[0-9a-f]{32}$/;
/** A year, in milliseconds. */
const LIFE = 365 * 24 * 3600 * 1000;

/** Who a browser is to the outlets, or null for one that never posted. */
export function visitorOf(request: Request): string | null {
  const found = parse(request.headers.cookie ?? '')[NAME];
  return found !== undefined && SHAPE.test(found) ? found : null;
}

/** Who a browser is to the outlets; one that is new gets a mark that no script can read. */
export function markedVisitor(request: Request, response: Response): string {
  const known = visitorOf(request);
  if (known) return known;
  const mark = randomBytes(16).toString('hex');
  response.cookie(NAME, mark, { httpOnly: true, sameSite: 'strict', path: '/outlets', maxAge: LIFE });
  return mark;
}
