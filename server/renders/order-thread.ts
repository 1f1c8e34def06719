/** Works out what requests ask for, in a thread of its own: one of thousands of ranges takes a second. */
import { serveThread } from '../render/serve-thread';
import { resolveRequest } from './render-order';

serveThread((request: Parameters<typeof resolveRequest>[0]) => Promise.resolve(resolveRequest(request)));
