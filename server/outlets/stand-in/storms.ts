import { clearTimeout, setTimeout } from 'node:timers';
import { setTimeout as wait } from 'node:timers/promises';
import type { RequestHandler } from 'express';
import { BUSY_SECONDS, type FaultInjection } from './fault-injection';

/** An answer in slow weather waits so long, in milliseconds. */
const SLOW = 1000;
/** Of requests in dropping weather so many break, within so many milliseconds. */
const DROPPED = 0.3;
const DROPPED_AFTER = 60;
/** Of requests in busy weather so many are turned away. */
const TURNED_AWAY = 0.5;

/** Lets an outlet's weather be felt by what is asked of its interface. */
export const injectFaults =
  (weather: FaultInjection, random = Math.random): RequestHandler =>
  async (request, response, next) => {
    const { now } = weather;
    if (now === 'slow') await wait(SLOW);
    if (now === 'busy' && random() < TURNED_AWAY) {
      response.set('retry-after', String(BUSY_SECONDS));
      response.status(429).json({ error: 'busy', detail: 'too many requests' });
      return;
    }
    if (now === 'full' && request.method === 'POST' && request.path.includes('/uploads')) {
      response.status(507).json({ error: 'full', detail: 'there is no room for it' });
      return;
    }
    if (now === 'dropping' && random() < DROPPED) {
      // Some of what it brings has come by then.
      const clock = setTimeout(() => request.socket.destroy(), DROPPED_AFTER * random());
      response.on('close', () => clearTimeout(clock));
    }
    next();
  };
