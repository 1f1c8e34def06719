/** Tries bit rates in a thread of its own. */
import { tryRates } from './rate-trial';
import { serveThread } from './serve-thread';

serveThread(tryRates);
