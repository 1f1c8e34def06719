/** Starts the server: `tsx server/main.ts [--port N] [--data FOLDER] [--dist FOLDER] [--workers ADDRESS]`. */
import { mkdtempSync } from 'node:fs';
import http from 'node:http';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { parseArgs } from 'node:util';
import { openServer } from './app';
import { UnreachableError } from './fleet/fleet';

const { values } = parseArgs({
  options: {
    port: { type: 'string', default: '4100' },
    data: { type: 'string' },
    workers: { type: 'string', default: 'http://127.0.0.1:4101' },
    dist: { type: 'string', default: path.resolve(import.meta.dirname, '../dist') },
  },
});
const port = Number(values.port);
if (!Number.isInteger(port) || port < 0 || port > 65535) {
  console.error(`--port must be a whole number from 0 to 65535, not ${values.port}.`);
  process.exit(2);
}
// Where Redis is known, other machines make files too.
const redis = process.env.REDIS_URL;
const workers = redis ? { redis, address: values.workers } : null;
const data = values.data ?? mkdtempSync(path.join(tmpdir(), 'gusset-'));
// A failure that nobody waits for is told; it does not take the server down with it.
process.on('unhandledRejection', (error) => console.error(error));

async function serve(): Promise<void> {
  const gusset = await openServer({ dist: path.resolve(values.dist), data: path.resolve(data), workers });
  const server = http.createServer(gusset.app);
  /** A slow phone may take this long to send one request's headers and body, in milliseconds. */
  server.headersTimeout = 30_000;
  server.requestTimeout = 30 * 60_000;
  server.on('error', (error: NodeJS.ErrnoException) => {
    console.error(
      error.code === 'EADDRINUSE'
        ? `Port ${port} is taken. Give another: npm run demo -- --port 4200`
        : error.message,
    );
    process.exit(1);
  });
  server.listen(port, '127.0.0.1', () => {
    const address = server.address();
    const origin = `http://localhost:${typeof address === 'object' ? address?.port : port}`;
    gusset.begin(origin);
    console.log(`Gusset is at ${origin}`);
    console.log(`The outlets' stand-ins keep what is posted in ${data}`);
  });
  for (const signal of ['SIGINT', 'SIGTERM'] as const) {
    process.on(signal, () => {
      void gusset.close().finally(() => process.exit(0));
    });
  }
}

serve().catch((error: Error) => {
  if (error instanceof UnreachableError) {
    console.error(error.message);
    process.exit(1);
  }
  console.error(`${data} cannot be used for what is posted: ${error.message}`);
  console.error('Give another folder: npm run demo -- --data FOLDER');
  process.exit(1);
});
