import { randomBytes } from 'node:crypto';
import type { Request, Response } from 'express';
import { parse } from 'cookie';

/** What of the server a browser is known to, and by what name: the outlets' stand-ins know nothing of the rest. */
const PLACES = { '/outlets': 'gusset_visitor', '/render': 'gusset_renders' } as const;
type Place = keyof typeof PLACES;
const SHAPE = /^[0-9a-f]{32}$/;
/** A year, in milliseconds. */
const LIFE = 365 * 24 * 3600 * 1000;

/** Who a browser is there, or null for one that was never there. */
export function visitorOf(request: Request, place: Place = '/outlets'): string | null {
  const found = parse(request.headers.cookie ?? '')[PLACES[place]];
  return found !== undefined && SHAPE.test(found) ? found : null;
}

/** Who a browser is there; one that is new gets a mark that no script can read. */
export function markedVisitor(request: Request, response: Response, place: Place = '/outlets'): string {
  const known = visitorOf(request, place);
  if (known) return known;
  const mark = randomBytes(16).toString('hex');
  response.cookie(PLACES[place], mark, { httpOnly: true, sameSite: 'strict', path: place, maxAge: LIFE });
  return mark;
}
