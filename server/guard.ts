import type { RequestHandler } from 'express';
import { isLoopback } from './loopback';

/** Where a browser says a request comes from; all but these are other pages. */
const OWN_SITES = new Set(['same-origin', 'none']);

/**
 * Lets only this server's own pages in: a foreign name in `Host`, a foreign `Origin`, and what another page asks for
 * in any other way than by a link to a page, are refused.
 */
export const requireOwnPage: RequestHandler = (request, response, next) => {
  const host = request.headers.host ?? '';
  // Any other name is one that somebody pointed here.
  if (!isLoopback(host.replace(/:\d+$/, ''))) {
    response.status(421).json({ error: 'this server answers only to localhost' });
    return;
  }
  const { origin } = request.headers;
  const site = request.get('sec-fetch-site');
  const foreign =
    (origin !== undefined && origin !== `http://${host}`) || (site !== undefined && !OWN_SITES.has(site));
  // A link from elsewhere may lead here; nothing else may.
  const link =
    request.method === 'GET' &&
    request.get('sec-fetch-mode') === 'navigate' &&
    request.get('sec-fetch-dest') === 'document';
  if (foreign && !link) {
    response.status(403).json({ error: 'pages of another origin are not let in' });
    return;
  }
  next();
};
