import { createHash } from 'node:crypto';
import type { Express, Request, Response } from 'express';
import { parse } from 'cookie';
import { isRandomId } from '../src/core/figures/random-id';
import { createId } from './store/create-id';
import type { Database } from './store/database';

/** Parts of the server that know a browser, each with the name of its cookie. */
const PLACES = {
  '/render': 'gusset_renders',
  '/posting': 'gusset_posting',
  '/hand-off': 'gusset_hand_off',
} as const;
type Place = keyof typeof PLACES;
/** A year, in milliseconds. */
const LIFE = 365 * 24 * 3600 * 1000;

/** A mark as it is stored: whoever reads the database cannot pass for its browser. */
const hashMark = (mark: string): string => createHash('sha256').update(mark).digest('hex');

/** Marks that this server issued, by their hash, and the browser that each is of. */
class Visitors {
  constructor(private readonly database: Database) {}

  find(mark: string): string | null {
    const row = this.database.prepare('select visitor from visitors where mark = ?').get([hashMark(mark)]) as
      { visitor: string } | undefined;
    return row?.visitor ?? null;
  }

  /** @returns a new mark of a browser. */
  issue(visitor: string): string {
    const mark = createId();
    this.database
      .prepare('insert into visitors (mark, visitor, made_at) values (?, ?, ?)')
      .run([hashMark(mark), visitor, Date.now()]);
    return mark;
  }

  revoke(mark: string): void {
    this.database.prepare('delete from visitors where mark = ?').run([hashMark(mark)]);
  }
}

/** Lets an app know its visitors. */
export function addVisitors(app: Express, database: Database): void {
  app.locals.visitors = new Visitors(database);
}

const listVisitors = (request: Request): Visitors => request.app.locals.visitors as Visitors;

function toMark(request: Request, place: Place): string | null {
  const found = parse(request.headers.cookie ?? '')[PLACES[place]];
  return found !== undefined && isRandomId(found) ? found : null;
}

/** Who a browser is there, or null for one that was never there, or has a mark that this server did not issue. */
export function findVisitor(request: Request, place: Place): string | null {
  const mark = toMark(request, place);
  return mark === null ? null : listVisitors(request).find(mark);
}

/** The same, of a browser that comes back: from now on it is known for a year more. */
export function findReturningVisitor(request: Request, response: Response, place: Place): string | null {
  const mark = toMark(request, place);
  const visitor = findVisitor(request, place);
  if (mark !== null && visitor !== null) setMark(response, place, mark);
  return visitor;
}

/** Who a browser is there; one that is new gets a mark that no script can read. */
export function readVisitorMark(request: Request, response: Response, place: Place): string {
  const known = findReturningVisitor(request, response, place);
  if (known) return known;
  const visitor = createId();
  setMark(response, place, listVisitors(request).issue(visitor));
  return visitor;
}

/** Gives a browser another mark in the place of its own: one that somebody saw or planted is good for nothing then. */
export function renewMark(request: Request, response: Response, place: Place): void {
  const mark = toMark(request, place);
  const visitor = findVisitor(request, place);
  if (mark === null || visitor === null) return;
  setMark(response, place, listVisitors(request).issue(visitor));
  listVisitors(request).revoke(mark);
}

function setMark(response: Response, place: Place, mark: string): void {
  // Somebody who comes back from an outlet comes from another site, by a link.
  const sameSite = place === '/posting' ? 'lax' : 'strict';
  response.cookie(PLACES[place], mark, { httpOnly: true, sameSite, path: place, maxAge: LIFE });
}
