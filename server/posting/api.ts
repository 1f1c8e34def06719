import express, { type Express, type Request, type Response } from 'express';
import { z } from 'zod';
import { boundedIntText, MAX_FRAMES } from '../../src/core/figures/bounded';
import { isRandomId } from '../../src/core/figures/random-id';
import { postChangeSchema } from '../../src/core/outlets/outlet-api';
import { MAX_FORM_BYTES } from '../../src/core/outlets/post-form';
import {
  againPath,
  audiencePath,
  isUnderWay,
  POSTED,
  POSTED_EVENTS,
  postedPath,
  postEditSchema,
  postOrderSchema,
  takeDownPath,
} from '../../src/core/posting/post-order';
import { abilitiesPath, collectionsPath, longVideosPath } from '../../src/core/posting/accounts';
import { AccountError } from '../accounts/accounts';
import { getOrigin } from '../accounts/api';
import { rm } from 'node:fs/promises';
import { parseBody } from '../answers';
import { tellChanges } from '../events';
import { readVisitorMark, findVisitor } from '../visitor';
import { OutletClientError } from './outlet-connection';
import type { PostService, PostingProblem } from './posting';
import { type PostingRecord, toPublicPost } from './posting-records';

/** Why nothing is done, in words and as a status. */
const PROBLEMS: Record<PostingProblem, [status: number, error: string]> = {
  'no-upload': [409, 'the file is not here, or not whole'],
  'no-account': [409, 'the account is not there, or of another outlet'],
  past: [422, 'the time has gone by'],
  'under-way': [409, 'the outlet has it already'],
  'not-up': [409, 'the post is not up'],
};
const body = express.json({ limit: MAX_FORM_BYTES });

/** Adds posting to a server: orders, how they stand as events, changes, and ways to call them back. */
export function addPosting(app: Express, posting: PostService): void {
  const { records } = posting;
  app.get(POSTED, (request, response) => {
    const visitor = findVisitor(request, '/posting');
    response.json({ posts: visitor === null ? [] : records.of(visitor).map(toPublicPost) });
  });
  app.post(POSTED, body, async (request, response) => {
    const order = parseBody(request, response, postOrderSchema);
    if (order)
      answer(response, await posting.order(order, readVisitorMark(request, response, '/posting')), 202);
  });
  app.get(POSTED_EVENTS, (request, response) => {
    const visitor = findVisitor(request, '/posting');
    const own = visitor === null ? [] : records.of(visitor).filter(isUnderWay);
    const pick = (record: PostingRecord) => (record.visitor === visitor ? toPublicPost(record) : null);
    tellChanges(response, posting.dispatcher.news, pick, own);
  });
  app.delete(postedPath(':id'), async (request, response) => {
    const record = own(request);
    await orExcuse(response, async () => {
      if (record) await posting.forget(record);
      response.status(204).end();
    });
  });
  app.post(againPath(':id'), body, async (request, response) => {
    const record = findOwned(request, response);
    const edit = record && parseBody(request, response, postEditSchema);
    if (record && edit) await atOutlet(response, () => posting.again(record, edit));
  });
  app.put(audiencePath(':id'), body, async (request, response) => {
    const record = findOwned(request, response);
    const change = record && parseBody(request, response, postChangeSchema);
    if (record && change) await atOutlet(response, () => posting.setAudience(record, change.audience));
  });
  app.post(takeDownPath(':id'), async (request, response) => {
    const record = findOwned(request, response);
    if (record) await atOutlet(response, () => posting.takeDown(record));
  });
  app.get(`${postedPath(':id')}/pictures/:kind`, async (request, response, next) => {
    const asked = z
      .object({ kind: z.enum(['sent', 'viewed']), frame: boundedIntText(0, MAX_FRAMES) })
      .safeParse({ ...request.params, ...request.query });
    const record = own(request);
    const file =
      record && asked.success ? await posting.picture(record, asked.data.kind, asked.data.frame) : null;
    if (file === null) return void response.status(404).json({ error: 'there is no such picture' });
    response.set('cache-control', 'no-store').sendFile(file, (error?: NodeJS.ErrnoException) => {
      void rm(file, { force: true });
      if (error && error.code !== 'ECONNABORTED') next(error);
    });
  });

  app.get(abilitiesPath(':outlet'), async (request, response) => {
    const way = posting.directory.find(String(request.params.outlet), getOrigin(request))?.way;
    if (way) await answerWith(response, () => way.abilities());
    else response.status(404).json({ error: 'no such outlet' });
  });
  app.get(collectionsPath(':id'), async (request, response) => {
    const account = getAccount(request, response);
    if (account)
      await answerWith(response, () =>
        posting.speaker.as({ ...account, account: account.id }, async (way, token) => ({
          collections: await way.collections(token),
        })),
      );
  });
  app.get(longVideosPath(':id'), async (request, response) => {
    const account = getAccount(request, response);
    const search = String(request.query.search ?? '').slice(0, 200);
    if (account)
      await answerWith(response, () =>
        posting.speaker.as({ ...account, account: account.id }, async (way, token) => ({
          videos: await way.longVideos(token, search),
        })),
      );
  });

  /** An account of the browser that asks; one of another is not there. */
  function getAccount(request: Request, response: Response) {
    const visitor = findVisitor(request, '/posting');
    const found = visitor === null ? null : posting.accounts.find(String(request.params.id), visitor);
    if (!found) response.status(404).json({ error: 'no such account' });
    return found;
  }

  /** A post of the browser that asks; one of another is not there. */
  function own(request: Request): PostingRecord | null {
    const id = String(request.params.id);
    const record = isRandomId(id) ? records.find(id) : null;
    return record?.visitor === findVisitor(request, '/posting') ? record : null;
  }
  function findOwned(request: Request, response: Response): PostingRecord | null {
    const record = own(request);
    if (!record) response.status(404).json({ error: 'no such post' });
    return record;
  }
}

function answer(response: Response, found: PostingRecord | PostingProblem, status = 200): void {
  if (typeof found !== 'string') return void response.status(status).json(toPublicPost(found));
  response.status(PROBLEMS[found][0]).json({ error: PROBLEMS[found][1] });
}

/** Does something at an outlet while somebody waits, or says that it cannot be had now. */
async function atOutlet(
  response: Response,
  act: () => Promise<PostingRecord | PostingProblem>,
): Promise<void> {
  await orExcuse(response, async () => answer(response, await act()));
}

/** Answers with what an outlet says. */
async function answerWith(response: Response, ask: () => Promise<unknown>): Promise<void> {
  await orExcuse(response, async () => void response.json(await ask()));
}

async function orExcuse(response: Response, act: () => Promise<void>): Promise<void> {
  try {
    await act();
  } catch (error) {
    if (error instanceof AccountError) response.status(409).json({ error: `the account is ${error.state}` });
    else if (error instanceof OutletClientError) response.status(503).json({ error: error.message });
    else throw error;
  }
}
