import { create } from 'zustand';
import { SHARED_CACHE, SHARED_NAME } from '@core/interchange/share-target';

const SCRIPT = '/service-worker.js';

/** Asked of the browser once it would install the app. */
interface InstallPrompt extends Event {
  prompt(): Promise<unknown>;
}

interface OfflineState {
  /** True when the app is kept on this device, so that it opens with no line. */
  kept: boolean;
  /** A newer version that waits to take over. */
  newer: ServiceWorker | null;
  /** Another tab went on with a newer version: this page's own is no longer whole. */
  replaced: boolean;
  /** Installs the app, where the browser offers it. */
  install: (() => Promise<void>) | null;
}

export const useOffline = create<OfflineState>(() => ({
  kept: false,
  newer: null,
  replaced: false,
  install: null,
}));

/** Keeps the app on this device, and hears of newer versions. A browser that cannot goes on without. */
export async function keepOffline(): Promise<void> {
  if (!('serviceWorker' in navigator)) return;
  window.addEventListener('beforeinstallprompt', (event) => {
    event.preventDefault();
    useOffline.setState({ install: () => setInstaller(event as InstallPrompt) });
  });
  const registration = await navigator.serviceWorker.register(SCRIPT).catch(() => null);
  if (!registration) return;
  const look = () => {
    // The first one waits for nobody.
    const isNewer = registration.waiting !== null && registration.active !== null;
    useOffline.setState({ kept: registration.active !== null, newer: isNewer ? registration.waiting : null });
  };
  const watch = (worker: ServiceWorker | null) => worker?.addEventListener('statechange', look);
  watch(registration.installing);
  registration.addEventListener('updatefound', () => watch(registration.installing));
  look();
  const { serviceWorker } = navigator;
  // The first worker takes over a page of its own version.
  if (serviceWorker.controller)
    serviceWorker.addEventListener('controllerchange', reloadUnseen, { once: true });
}

/**
 * Reloads a page that another tab brought a newer version to, once nobody looks at it: its own parts are no longer
 * there to be loaded. All that was done is stored, and an export goes on after it.
 */
function reloadUnseen(): void {
  if (document.visibilityState === 'hidden') return location.reload();
  useOffline.setState({ replaced: true });
  document.addEventListener('visibilitychange', () => location.reload(), { once: true });
}

async function setInstaller(event: InstallPrompt): Promise<void> {
  useOffline.setState({ install: null });
  await event.prompt();
}

/** Goes on with the newer version. */
export function takeNewer(worker: ServiceWorker): void {
  navigator.serviceWorker.addEventListener('controllerchange', () => location.reload(), { once: true });
  worker.postMessage('take-over');
}

/**
 * Takes in what another app shared; it is kept until that is done.
 * @returns how many files there were. @throws where they cannot be read.
 */
export function takeSharedFiles(take: (files: readonly File[]) => Promise<unknown>): Promise<number> {
  // What is shared meanwhile waits for this to end, so that nothing is taken twice.
  const taken = taking.then(() => takeKept(take));
  taking = taken.catch(() => undefined);
  return taken;
}

let taking: Promise<unknown> = Promise.resolve();

async function takeKept(take: (files: readonly File[]) => Promise<unknown>): Promise<number> {
  const cache = await caches.open(SHARED_CACHE);
  const requests = await cache.keys();
  const files: File[] = [];
  for (const request of requests) {
    const response = await cache.match(request);
    const name = decodeURIComponent(response?.headers.get(SHARED_NAME) ?? '') || 'shared.mp4';
    if (response) files.push(new File([await response.blob()], name));
  }
  await take(files);
  for (const request of requests) await cache.delete(request);
  return files.length;
}
