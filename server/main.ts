/**
 * Starts the server: `server-build/main.cjs [--port N] [--data FOLDER] [--dist FOLDER] [--workers ADDRESS]
 * [--outlets FILE] [--lan [--lan-port N] [--lan-address ADDRESS]]`.
 */
import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { parseArgs } from 'node:util';
import { openServer } from './app';
import { ROOT } from './root';
import { UnreachableError } from './fleet/fleet';
import type { HandOff } from './hand-off/desk-api';
import { encodeUrlPart, lanAddresses } from './hand-off/lan';
import { phoneSite } from './hand-off/phone-site';
import { createListener, NETWORK } from './listener';
import { OutletsFileError, readOutletsElsewhere } from './outlets/elsewhere';
import { FolderTakenError } from './store/folder-lock';

const { values } = parseArgs({
  options: {
    port: { type: 'string', default: '4100' },
    data: { type: 'string' },
    outlets: { type: 'string' },
    lan: { type: 'boolean', default: false },
    'lan-port': { type: 'string', default: '4102' },
    'lan-address': { type: 'string' },
    workers: { type: 'string', default: 'http://127.0.0.1:4101' },
    dist: { type: 'string', default: path.join(ROOT, 'dist') },
  },
});
const port = parsePort('port');
const lanPort = parsePort('lan-port');
// Where Redis is known, other machines make files too.
const redis = process.env.REDIS_URL;
const workers = redis ? { redis, address: values.workers } : null;
const data = values.data ?? mkdtempSync(path.join(tmpdir(), 'gusset-'));
// A failure that nobody waits for is told; it does not take the server down with it.
process.on('unhandledRejection', (error) => console.error(error));

function parsePort(option: 'port' | 'lan-port'): number {
  const number = Number(values[option]);
  if (Number.isInteger(number) && number >= 0 && number <= 65535) return number;
  console.error(`--${option} must be a whole number from 0 to 65535, not ${values[option]}.`);
  process.exit(2);
}

/** A server that is asked to end does so within this time, in milliseconds. */
const CLOSE_WITHIN_MS = 10_000;

async function serve(): Promise<void> {
  const elsewhere = values.outlets === undefined ? {} : readOutletsElsewhere(path.resolve(values.outlets));
  const gusset = await openServer({
    dist: path.resolve(values.dist),
    data: path.resolve(data),
    workers,
    elsewhere,
  });
  const server = createListener(gusset.app);
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
    if (values.lan) openToPhones(gusset.handOff);
  });
  for (const signal of ['SIGINT', 'SIGTERM'] as const) {
    process.on(signal, () => {
      const end = () => process.exit(0);
      void gusset.close().finally(end);
      // A database that another process locks would hold it: the next server goes on with what is recorded.
      setTimeout(end, CLOSE_WITHIN_MS);
    });
  }
}

/** Opens a second port to the local network, which has nothing but the pages for phones. */
function openToPhones(handOff: HandOff): void {
  const address = values['lan-address'] ?? lanAddresses()[0];
  if (address === undefined) {
    console.error('This machine is in no local network: nothing was opened to phones.');
    return;
  }
  let host = '';
  const workers = path.join(path.resolve(values.dist), 'workers');
  const phones = createListener(
    phoneSite(handOff.offers, () => host, workers),
    NETWORK,
  );
  phones.on('error', (error: NodeJS.ErrnoException) => {
    const taken = error.code === 'EADDRINUSE';
    console.error(
      taken
        ? `Port ${lanPort} is taken. Give another for phones: npm run demo -- --lan --lan-port 4202`
        : `Nothing was opened to phones: ${error.message}`,
    );
  });
  phones.listen(lanPort, address, () => {
    const bound = phones.address();
    host = `${encodeUrlPart(address)}:${typeof bound === 'object' ? bound?.port : lanPort}`;
    handOff.lan = `http://${host}`;
    console.log(`Phones in this network reach http://${host}`);
    console.log(
      'Open there: files that you hand to a phone, each under an address of its own that ends after ten minutes. ' +
        'Nothing else: not the app, not your jobs, not what is posted.',
    );
  });
}

serve().catch((error: Error) => {
  if (error instanceof FolderTakenError) {
    console.error(
      `Another Gusset server is at work in ${data}. End it, or give another folder: npm run demo -- --data FOLDER`,
    );
    process.exit(1);
  }
  if (error instanceof UnreachableError || error instanceof OutletsFileError) {
    console.error(error.message);
    process.exit(1);
  }
  console.error(`${data} cannot be used for what is posted: ${error.message}`);
  console.error('Give another folder: npm run demo -- --data FOLDER');
  process.exit(1);
});
