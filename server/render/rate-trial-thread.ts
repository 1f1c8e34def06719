/** Tries bit rates in a thread of its own. */
import { runRateTrial } from './rate-trial';
import { serveThread } from './serve-thread';

serveThread(runRateTrial);
