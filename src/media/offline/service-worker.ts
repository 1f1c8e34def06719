/// <reference lib="webworker" />
import {
  cleanupOutdatedCaches,
  createHandlerBoundToURL,
  type PrecacheEntry,
  precacheAndRoute,
} from 'workbox-precaching';
import { NavigationRoute, registerRoute } from 'workbox-routing';
import {
  SHARE_TARGET,
  SHARED_CACHE,
  SHARED_NAME,
  SHARED_QUERY,
  sharedFile,
} from '@core/interchange/share-target';

/** Every file of the app with its revision: put in by the build. */
declare const PRECACHED: PrecacheEntry[];
declare const self: ServiceWorkerGlobalScope;

/** Pages that are the server's own: the outlets' stand-ins, and coming back from signing in. */
const SERVERS_OWN = [/^\/outlets\//, /^\/posting\//, /^\/demo\//];

precacheAndRoute(PRECACHED);
cleanupOutdatedCaches();
registerRoute(new NavigationRoute(createHandlerBoundToURL('/index.html'), { denylist: SERVERS_OWN }));
registerRoute(
  ({ url }) => url.pathname === SHARE_TARGET.path,
  ({ request }) => takeShared(request),
  'POST',
);

// A page that works with the old version asks for the new one, when the person wants it.
self.addEventListener('message', ({ data }) => {
  if (data === 'take-over') void self.skipWaiting();
});

/** Keeps videos that another app shared until the app has taken them in. What cannot be kept is told by the app. */
async function takeShared(request: Request): Promise<Response> {
  const kept = await keepShared(request).catch(async (error: unknown) => {
    console.error(error);
    await caches.delete(SHARED_CACHE);
    return 'none';
  });
  return Response.redirect(`/?${SHARED_QUERY}=${kept}`, 303);
}

/** @returns how many there were. @throws where they cannot be read, or there is no room. */
async function keepShared(request: Request): Promise<number> {
  const form = await request.formData();
  const files = form
    .getAll(SHARE_TARGET.field)
    .flatMap((part: unknown) => (part instanceof File ? [part] : []));
  const cache = await caches.open(SHARED_CACHE);
  for (const [place, file] of files.entries()) {
    const headers = { 'content-type': file.type, [SHARED_NAME]: encodeURIComponent(file.name) };
    await cache.put(sharedFile(place), new Response(file, { headers }));
  }
  return files.length;
}
