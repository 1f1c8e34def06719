import path from 'node:path';
import express, { type Express, type Request } from 'express';
import { z } from 'zod';
import { isRandomId, randomIdSchema } from '../../src/core/figures/random-id';
import {
  masterPath,
  RENDER_ABILITY,
  RENDER_MASTERS,
  RENDER_UPLOADS,
  renderEvents,
  renderPath,
  renderRequestSchema,
  RENDERS,
  renderedPath,
} from '../../src/core/job/render-service';
import { isFingerprint } from '../../src/core/master/fingerprint';
import { readRouteId } from '../route-id';
import { UploadEndpoint } from '../uploads/upload-endpoint';
import { readVisitorMark, findVisitor } from '../visitor';
import type { Workshop } from '../workshop';
import { parseBody } from '../answers';
import { answerWithId, jobBody } from './answers';
import { MasterRecords } from './master-records';
import { Masters } from './masters';
import { RenderOrders } from './render-orders';
import { RenderRecords } from './render-records';
import { Renders } from './renders';
import { addTrials } from './trial-api';
import { Trials } from './trials';

/** Largest master that is taken, in bytes. */
const MAX_MASTER = 64e9;

/** Render service of a server, as a browser uses it. */
export interface RenderService {
  masters: Masters;
  renders: Renders;
  trials: Trials;
  /** Stops all that is made, and resolves when nothing is written any more. */
  close(): Promise<void>;
}

/** Adds the making of files: masters by tus, jobs, progress as events, the file, and ways to stop and forget. */
export function addRenders(app: Express, { database, data, tools, fleet }: Workshop): RenderService {
  const door = UploadEndpoint.add(app, database, {
    name: 'masters',
    address: RENDER_UPLOADS,
    folder: path.join(data, 'masters'),
    mostBytes: MAX_MASTER,
  });
  const masters = new Masters(new MasterRecords(database), door);
  const orders = new RenderOrders(masters);
  const renders = new Renders(new RenderRecords(database), orders, path.join(data, 'rendered'), fleet);
  const ours = (request: Request) => findVisitor(request, '/render');

  app.get(RENDER_ABILITY, (_request, response) => {
    response.json({ ffmpeg: tools.ffmpeg });
  });
  app.get(RENDER_MASTERS, async (request, response) => {
    const visitor = ours(request);
    response.json({ masters: visitor === null ? [] : await masters.ofVisitor(visitor) });
  });
  app.put(masterPath(':fingerprint'), express.json(), async (request, response) => {
    const { fingerprint } = request.params;
    const body = z.object({ upload: randomIdSchema }).safeParse(request.body);
    if (!isFingerprint(String(fingerprint)) || !body.success) {
      response.status(422).json({ error: 'a fingerprint and the id of an upload are needed' });
      return;
    }
    const wrong = await masters.take(
      readVisitorMark(request, response, '/render'),
      String(fingerprint),
      body.data.upload,
    );
    if (wrong === null) response.status(204).end();
    else if (wrong === 'missing') response.status(404).json({ error: 'the upload is not here' });
    else if (wrong === 'partial') response.status(409).json({ error: 'the upload is not complete' });
    else response.status(422).json({ error: 'the upload is another file than its fingerprint says' });
  });
  app.delete(masterPath(':fingerprint'), async (request, response) => {
    const visitor = ours(request);
    if (visitor !== null) await masters.forget(visitor, String(request.params.fingerprint));
    response.status(204).end();
  });

  app.post(RENDERS, jobBody, async (request, response) => {
    const asked = parseBody(request, response, renderRequestSchema);
    if (!asked) return;
    answerWithId(response, await renders.begin(readVisitorMark(request, response, '/render'), asked));
  });
  app.use(renderPath(':id'), (request, response, next) => {
    const id = String(request.params.id);
    if (isRandomId(id) && renders.find(id, ours(request))) return next();
    response.status(404).json({ error: 'no such file was asked for' });
  });
  app.get(renderPath(':id'), (request, response) => {
    response.json(renders.find(readRouteId(request), ours(request)));
  });
  app.get(renderEvents(':id'), (request, response) => {
    const id = readRouteId(request);
    response.writeHead(200, { 'content-type': 'text/event-stream', 'cache-control': 'no-store' });
    const tell = (state: unknown) => {
      response.write(`data: ${JSON.stringify(state)}\n\n`);
    };
    const off = renders.follow(id, (state) => {
      tell(state);
      if (state.state === 'done' || state.state === 'failed') response.end();
    });
    const now = renders.find(id, ours(request));
    tell(now);
    if (now?.state === 'done' || now?.state === 'failed') response.end();
    response.on('close', off);
  });
  app.get(renderedPath(':id'), (request, response, next) => {
    const id = readRouteId(request);
    if (renders.find(id, ours(request))?.state !== 'done') {
      response.status(404).json({ error: 'the file is not made yet' });
      return;
    }
    response
      .type('application/octet-stream')
      .sendFile(renders.getFile(id), (error?: NodeJS.ErrnoException) => {
        if (error && error.code !== 'ECONNABORTED') next(error);
      });
  });
  app.delete(renderPath(':id'), async (request, response) => {
    await renders.forget(readRouteId(request));
    response.status(204).end();
  });
  const trials = new Trials(orders, path.join(data, 'trials'));
  addTrials(app, trials);
  return {
    masters,
    renders,
    trials,
    async close() {
      await Promise.all([renders.close(), trials.close()]);
      orders.close();
    },
  };
}
