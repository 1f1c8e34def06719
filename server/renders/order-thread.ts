/** Resolves requests for files in a thread of its own: one of thousands of ranges takes a second. */
import type { RenderRequest } from '../../src/core/job/render-service';
import { serveThread } from '../render/serve-thread';
import { resolveRequest } from './resolve-request';

// What it throws is an answer, too.
serveThread(async (request: RenderRequest) => resolveRequest(request));
