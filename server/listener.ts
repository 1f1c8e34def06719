import http from 'node:http';
import type { Socket } from 'node:net';
import type { ErrorRequestHandler, Express } from 'express';
import { isDatabaseBusy } from './store/folder-lock';
import { ProgramError } from './programs/programs';

/** Limits of one listener. */
interface ListenerLimits {
  /** Connections that are open at a time: far fewer than a process may have descriptors. */
  maxConnections: number;
  /** Connections that one address may have open at a time. */
  maxPerAddress: number;
  /** Milliseconds within which the headers of a request must have come. */
  headersTimeoutMs: number;
  /** Milliseconds within which all of a request must have come. */
  requestTimeoutMs: number;
}

/** On this machine itself: many pages, each with its events, and uploads over a slow line. */
const LOCAL: ListenerLimits = {
  maxConnections: 4000,
  maxPerAddress: 4000,
  headersTimeoutMs: 30_000,
  requestTimeoutMs: 30 * 60_000,
};
/** To a network that may hold anybody. */
export const NETWORK: ListenerLimits = {
  ...{ maxConnections: 400, maxPerAddress: 40 },
  ...{ headersTimeoutMs: 10_000, requestTimeoutMs: 30_000 },
};
/** To workers, which bring large files. */
export const WORKERS: ListenerLimits = { ...LOCAL, maxConnections: 1000, maxPerAddress: 200 };

/** Makes the server of an app: the one way to listen, so that every listener has limits and answers errors alike. */
export function createListener(app: Express, limits = LOCAL): http.Server {
  app.use(answerErrors);
  const server = http.createServer(app);
  server.maxConnections = limits.maxConnections;
  server.headersTimeout = limits.headersTimeoutMs;
  server.requestTimeout = limits.requestTimeoutMs;
  limitPerAddress(server, limits.maxPerAddress);
  return server;
}

function limitPerAddress(server: http.Server, max: number): void {
  const open = new Map<string, number>();
  server.on('connection', (socket: Socket) => {
    const address = socket.remoteAddress ?? '';
    const count = (open.get(address) ?? 0) + 1;
    open.set(address, count);
    socket.once('close', () => {
      const left = (open.get(address) ?? 1) - 1;
      if (left > 0) open.set(address, left);
      else open.delete(address);
    });
    if (count > max) socket.destroy();
  });
}

/** Answers a failed request in words, without where it failed. */
const answerErrors: ErrorRequestHandler = (
  error: { status?: number; message?: string },
  _request,
  response,
  next,
) => {
  if (response.headersSent) return next(error);
  const { status, words } = toAnswer(error);
  if (status === 500) console.error(error);
  response.status(status).json({ error: words });
};

function toAnswer(error: { status?: number; message?: string }): { status: number; words: string } {
  if (error instanceof ProgramError) {
    const missing = error.reason === 'missing';
    return { status: 503, words: missing ? 'this server has no ffmpeg' : 'the server is busy' };
  }
  if (isDatabaseBusy(error)) return { status: 503, words: 'the server is busy' };
  const status = error.status ?? 500;
  return { status, words: status >= 500 ? 'the server failed' : (error.message ?? 'bad request') };
}
