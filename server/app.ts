import path from 'node:path';
import express, { type ErrorRequestHandler, type Express } from 'express';
import helmet from 'helmet';
import { RULE_SHEETS } from '../src/core/outlets/outlets';
import { addConversion } from './convert/convert';
import { BOARD_STYLE } from './outlets/board';
import { addStandIn } from './outlets/stand-in';

export interface AppOptions {
  /** Folder of the exported web app. */
  dist: string;
  /** Folder for what the outlets' stand-ins keep. */
  data: string;
}

/** Folders whose file names carry a hash of their contents. */
const HASHED = /[/\\](_expo|assets|workers)[/\\]/;

/** Cross-origin isolation for the workers, and a policy under which only our own scripts run. */
const protection = helmet({
  contentSecurityPolicy: {
    useDefaults: false,
    directives: {
      defaultSrc: ["'self'"],
      // The kernel and the AAC encoder are WebAssembly; the latter starts its worker from a blob.
      scriptSrc: ["'self'", "'wasm-unsafe-eval'"],
      workerSrc: ["'self'", 'blob:'],
      // The web target of React Native writes its rules into a style element.
      styleSrc: ["'self'", "'unsafe-inline'"],
      imgSrc: ["'self'", 'blob:', 'data:'],
      mediaSrc: ["'self'", 'blob:'],
      fontSrc: ["'self'", 'data:'],
      connectSrc: ["'self'"],
      objectSrc: ["'none'"],
      baseUri: ["'none'"],
      formAction: ["'none'"],
      frameAncestors: ["'none'"],
    },
  },
  crossOriginEmbedderPolicy: { policy: 'require-corp' },
  crossOriginOpenerPolicy: { policy: 'same-origin' },
  crossOriginResourcePolicy: { policy: 'same-origin' },
  strictTransportSecurity: false,
});

/** The whole server: the app, and the outlets' stand-ins under their own paths. */
export function createApp({ dist, data }: AppOptions): Express {
  const app = express();
  app.use(protection);
  app.get('/outlets/board.css', (_request, response) => {
    response.type('css').send(BOARD_STYLE);
  });
  for (const sheet of RULE_SHEETS) addStandIn(app, sheet, data);
  addConversion(app, data);
  app.use('/outlets', (_request, response) => {
    response.status(404).json({ error: 'no such page at the outlets' });
  });
  app.use(
    express.static(dist, {
      setHeaders(response, file) {
        response.setHeader(
          'Cache-Control',
          HASHED.test(file) ? 'public, max-age=31536000, immutable' : 'no-cache',
        );
      },
    }),
  );
  app.get('/{*path}', (request, response, next) => {
    // A missing file is a 404, not the app.
    if (path.extname(request.path)) return next();
    response.set('Cache-Control', 'no-cache').sendFile('index.html', { root: dist });
  });
  const onError: ErrorRequestHandler = (
    error: { status?: number; message?: string },
    _request,
    response,
    next,
  ) => {
    if (response.headersSent) return next(error);
    const status = error.status ?? 500;
    if (status >= 500) console.error(error);
    response
      .status(status)
      .json({ error: status >= 500 ? 'the server failed' : (error.message ?? 'bad request') });
  };
  app.use(onError);
  return app;
}
