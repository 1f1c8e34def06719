import { readdirSync } from 'node:fs';
import path from 'node:path';
import express, { type Express, type NextFunction, type Request, type Response } from 'express';
import helmet from 'helmet';
import { arrivalSchema } from '../../src/core/posting/hand-off';
import { parseBody } from '../answers';
import type { KeptOffer, Offers } from './offers';
import { createEndedPage, createMissingPage, offerPage, PHONE_STYLE } from './phone-page';

/** How often it is looked how far a phone came, in milliseconds. */
const LOOK_EVERY = 400;
/** Name of the page's script before its hash. */
const SCRIPT = 'phone-check-';

const protection = helmet({
  contentSecurityPolicy: {
    useDefaults: false,
    directives: {
      defaultSrc: ["'none'"],
      scriptSrc: ["'self'"],
      styleSrc: ["'self'"],
      connectSrc: ["'self'"],
      workerSrc: ["'self'"],
      baseUri: ["'none'"],
      formAction: ["'none'"],
      frameAncestors: ["'none'"],
    },
  },
  // The token is in the address.
  referrerPolicy: { policy: 'no-referrer' },
  crossOriginResourcePolicy: { policy: 'same-origin' },
  strictTransportSecurity: false,
});

/**
 * The one thing that a local network reaches: pages for phones that have a token. It has no way to the app.
 * @param host that it may be called by, with its port. @param workers folder of the built scripts.
 */
export function phoneSite(offers: Offers, host: () => string, workers: string): Express {
  const app = express();
  app.disable('x-powered-by');
  app.use((request, response, next) => {
    // Any other name is one that somebody pointed here.
    const { origin } = request.headers;
    if (request.headers.host !== host()) return void response.status(421).type('text').send('not this name');
    if (origin !== undefined && origin !== `http://${host()}`)
      return void response.status(403).type('text').send('not from there');
    next();
  });
  app.use(protection, (_request, response, next) => {
    response.set('cache-control', 'no-store');
    next();
  });
  app.get('/phone.css', (_request, response) => void response.type('css').send(PHONE_STYLE));
  const script = readdirSync(workers).find((file) => file.startsWith(SCRIPT) && file.endsWith('.js'));
  app.get('/phone-check.js', (_request, response, next) => {
    if (script === undefined) return next();
    response.sendFile(path.join(workers, script));
  });

  // The token comes first: nothing is read of who has none.
  app.use('/:token', (request, response, next) => {
    const offer = offers.withToken(String(request.params.token));
    if (!offer) return void response.status(404).type('html').send(createMissingPage());
    if (offer.state !== 'open')
      return void response.status(410).type('html').send(createEndedPage(offer.state));
    response.locals.offer = offer;
    next();
  });
  const getOffer = (response: Response) => response.locals.offer as KeptOffer;
  app.get('/:token', (_request, response) => {
    response.type('html').send(offerPage(getOffer(response), '/phone-check.js'));
  });
  app.get('/:token/file', (request, response, next) => {
    sendOffered(offers, getOffer(response), request, response, next);
  });
  app.post('/:token/arrived', express.json({ limit: '1kb' }), async (request, response) => {
    const arrival = parseBody(request, response, arrivalSchema);
    if (arrival) response.json({ same: await offers.arrived(getOffer(response), arrival) });
  });
  app.use((_request, response) => void response.status(404).type('html').send(createMissingPage()));
  return app;
}

/** The bytes of a file that an answer has: those of its range (RFC 9110, 14.4), or all; null for none. */
function sentRange(response: Response, bytes: number): { from: number; to: number } | null {
  if (response.statusCode === 200) return { from: 0, to: bytes };
  const [, from, last] = /^bytes (\d+)-(\d+)\//.exec(String(response.getHeader('content-range') ?? '')) ?? [];
  return response.statusCode === 206 && last !== undefined
    ? { from: Number(from), to: Number(last) + 1 }
    : null;
}

/** Sends an offered file, or a part of it, and notes how far it came. */
function sendOffered(
  offers: Offers,
  offer: KeptOffer,
  request: Request,
  response: Response,
  next: NextFunction,
): void {
  const { socket } = request;
  const before = socket.bytesWritten;
  const clock = setInterval(() => {
    const range = response.headersSent ? sentRange(response, offer.bytes) : null;
    // The last byte counts once all are gone: what was written has headers in it too.
    if (range) offers.came(offer, Math.min(range.from + socket.bytesWritten - before, range.to - 1));
  }, LOOK_EVERY);
  response.on('finish', () => {
    const range = request.method === 'GET' ? sentRange(response, offer.bytes) : null;
    if (range) offers.came(offer, range.to);
  });
  response.on('close', () => clearInterval(clock));
  if (request.method === 'GET') offers.begun(offer);
  response.attachment(offer.fileName);
  // The same bytes have the same name, so that a download that broke off can go on.
  response.set({ etag: `"${offer.sha256}"`, 'cache-control': 'private, no-transform' });
  response.sendFile(
    offers.door.getFile(offer.upload),
    { lastModified: false },
    (error?: NodeJS.ErrnoException) => {
      if (error && error.code !== 'ECONNABORTED') next(error);
    },
  );
}
