import path from 'node:path';
import express, { type Express } from 'express';
import helmet from 'helmet';
import { SHARE_TARGET, SHARED_QUERY } from '../src/core/interchange/share-target';
import type { Sheets } from '../src/core/outlets/rule-sheet';
import { SHIPPED_SHEETS } from '../src/core/outlets/shipped';
import { SIGN_IN_BACK } from '../src/core/posting/accounts';
import { addAccounts } from './accounts/api';
import { addChat } from './chat/chat';
import { addConversion } from './convert/convert';
import { requireOwnPage } from './guard';
import { addHandOff, type HandOff } from './hand-off/desk-api';
import { BOARD_STYLE } from './outlets/stand-in/board';
import { createStandInClient, OutletDirectory } from './outlets/directory';
import type { OutletsElsewhere } from './outlets/elsewhere';
import { describeOutlet } from './outlets/outlets';
import type { RegisteredClient } from './outlets/stand-in/authority/authority';
import { addStandIn } from './outlets/stand-in/stand-in';
import { addPosting } from './posting/api';
import { PostService } from './posting/posting';
import { addRenders } from './renders/api';
import type { Secrets } from './store/secrets';
import { addVisitors } from './visitor';
import { keepSwept, type SweepTargets } from './sweep';
import { closeWorkshop, endPrograms, openWorkshop, type WorkersAt } from './workshop';

export interface AppOptions {
  /** Folder of the exported web app. */
  dist: string;
  /** Folder for what the outlets' stand-ins keep. */
  data: string;
  /** Rule sheets that the outlets' stand-ins judge by. */
  sheets?: Sheets;
  /** Outlets that are not on this server; they have no stand-ins. */
  elsewhere?: OutletsElsewhere;
  /** Where other machines make files too. */
  workers?: WorkersAt | null;
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

/** A server that is ready to listen. */
export interface GussetServer {
  app: Express;
  /** Records and folders that the sweep cleans. */
  swept: SweepTargets;
  handOff: HandOff;
  /** Goes on with what an earlier server left, and posts what is due. @param origin that it can be reached at now. */
  begin(origin: string): void;
  /** Ends every outside program, and what is done by the hour; resolves when nothing is written any more. */
  close(): Promise<void>;
}

/**
 * The whole server: the app, and the outlets' stand-ins under their own paths.
 * @throws where the data folder cannot be written.
 */
export async function openServer({
  dist,
  data,
  sheets = SHIPPED_SHEETS,
  elsewhere = {},
  workers = null,
}: AppOptions): Promise<GussetServer> {
  const workshop = await openWorkshop(data, workers);
  const app = express();
  addVisitors(app, workshop.database);
  app.use(requireOwnPage, protection);
  app.get('/outlets/board.css', (_request, response) => {
    response.type('css').send(BOARD_STYLE);
  });
  const standIns = sheets.flatMap((sheet) => {
    const { standIn } = describeOutlet(sheet.outlet);
    if (!standIn || Object.hasOwn(elsewhere, sheet.outlet)) return [];
    return [{ sheet, traits: standIn, client: ownClient(workshop.secrets, sheet.outlet) }];
  });
  const outlets = standIns.map((one) => addStandIn(app, one, workshop));
  const conversions = addConversion(app, workshop);
  const renders = addRenders(app, workshop);
  const here = new Set(standIns.map(({ sheet }) => sheet.outlet));
  const posting = new PostService(app, workshop, new OutletDirectory(here, elsewhere, workshop.secrets));
  addAccounts(app, posting.accounts, (id) => posting.holdFor(id));
  addPosting(app, posting);
  const handOff = addHandOff(app, workshop);
  const chat = addChat(app, workshop);
  addPages(app, dist);
  for (const { posts } of outlets) posts.resume();
  conversions.resume();
  renders.renders.resume();
  const swept = { outlets, conversions, renders, posting, offers: handOff.offers, chat };
  const stopSweeping = keepSwept(swept);
  return {
    app,
    swept,
    handOff,
    begin: (origin) => posting.start(origin),
    async close() {
      stopSweeping();
      handOff.offers.stop();
      await Promise.all([renders.close(), posting.close()]);
      endPrograms(workshop);
      await Promise.all(outlets.map(({ posts }) => posts.settled()));
      await closeWorkshop(workshop);
    },
  };
}

/** Registers this server at a stand-in that it runs. */
const ownClient = (secrets: Secrets, outlet: string): RegisteredClient => ({
  ...createStandInClient(secrets, outlet),
  name: 'Gusset',
  backFrom: (origin) => `${origin}${SIGN_IN_BACK}`,
});

/** Adds the pages of every other address: files of the app, and the app itself. */
function addPages(app: Express, dist: string): void {
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
  // The service worker takes what is shared; without one nobody has taken it.
  app.post(SHARE_TARGET.path, (_request, response) => response.redirect(303, `/?${SHARED_QUERY}=none`));
  app.get('/{*path}', (request, response, next) => {
    // A missing file is a 404, not the app.
    if (path.extname(request.path)) return next();
    response.set('Cache-Control', 'no-cache').sendFile('index.html', { root: dist });
  });
}
