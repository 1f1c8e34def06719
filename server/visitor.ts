import { randomBytes } from 'node:crypto';
import type { Request, Response } from 'express';
import { parse } from 'cookie';

/** What of the server a browser is known to, and by what name. */
const PLACES = {
  '/render': 'gusset_renders',
  '/posting': 'gusset_posting',
  '/hand-off': 'gusset_hand_off',
} as const;
type Place = keyof typeof PLACES;
const SHAPE = /^[0-9a-f]{32}$/;
/** A year, in milliseconds. */
const LIFE = 365 * 24 * 3600 * 1000;

/** Who a browser is there, or null for one that was never there. */
export function visitorOf(request: Request, place: Place): string | null {
  const found = parse(request.headers.cookie ?? '')[PLACES[place]];
  return found !== undefined && SHAPE.test(found) ? found : null;
}

/** Who a browser is there; one that is new gets a mark that no script can read. */
export function markedVisitor(request: Request, response: Response, place: Place): string {
  const known = visitorOf(request, place);
  if (known) return known;
  const mark = randomBytes(16).toString('hex');
  // Somebody who comes back from an outlet comes from another site, by a link.
  const sameSite = place === '/posting' ? 'lax' : 'strict';
  response.cookie(PLACES[place], mark, { httpOnly: true, sameSite, path: place, maxAge: LIFE });
  return mark;
}
