import { mkdirSync } from 'node:fs';
import path from 'node:path';
import express, { type Express, type Request, type Response } from 'express';
import { OUTLET_API } from '../../../src/core/outlets/outlet-api';
import {
  resolveAudience,
  boardPath,
  captionsPath,
  clipPath,
  coverPath,
  outletRoot,
  postPage,
} from '../../../src/core/outlets/post-form';
import type { RuleSheet } from '../../../src/core/outlets/rule-sheet';
import type { StandInTraits } from '../outlet';
import { sendFilm, sendStill } from '../../send-file';
import { UploadEndpoint } from '../../uploads/upload-endpoint';
import type { Workshop } from '../../workshop';
import { Authority, authorityPath, type RegisteredClient } from './authority/authority';
import { findAccountPicture } from './authority/people';
import { addSignIn } from './authority/sign-in';
import { boardPage, createNoPostPage } from './board';
import { addOutletApi, requireScope } from './outlet-api';
import { type TakenPost, TakenPosts } from './taken-posts';
import { Posts } from './posts';
import { injectFaults } from './storms';
import { FaultInjection, weatherSchema } from './fault-injection';

const BOARD_POLICY =
  "default-src 'self'; script-src 'none'; style-src 'self' 'unsafe-inline'; form-action 'self'; frame-ancestors 'none'";

/** An outlet's stand-in on a server. */
export interface StandIn {
  posts: Posts;
  door: UploadEndpoint;
  weather: FaultInjection;
  authority: Authority;
}

/** Parts that a stand-in is built from. */
export interface StandInParts {
  sheet: RuleSheet;
  traits: StandInTraits;
  /** The server that posts to it. */
  client: RegisteredClient;
}

/**
 * Adds an outlet's stand-in to a server: people sign in to it, it takes uploads by tus and posts by its interface,
 * checks each file itself, compresses it, and shows what it took.
 */
export function addStandIn(
  app: Express,
  { sheet, traits, client }: StandInParts,
  workshop: Workshop,
): StandIn {
  const { outlet } = sheet;
  const { database, data, looks, long, secrets } = workshop;
  const clips = path.join(data, outlet, 'clips');
  mkdirSync(clips, { recursive: true });
  const weather = new FaultInjection();
  const authority = new Authority(outlet, database, secrets, client);
  const uploads = `${outletRoot(outlet)}${OUTLET_API.uploads}`;
  app.use(`${outletRoot(outlet)}/api`, injectFaults(weather));
  app.use(uploads, requireScope(authority, 'post'));
  const door = UploadEndpoint.add(app, database, {
    name: outlet,
    address: uploads,
    folder: path.join(data, outlet, 'uploads'),
    mostBytes: Math.max(...sheet.placements.map((placement) => placement.mostBytes)),
  });
  const records = new TakenPosts(database, outlet);
  const posts = new Posts(sheet, records, door, { folder: clips, looks, long, weather });
  addSignIn(app, sheet, authority);
  app.use(authorityPath(outlet), authority.handler);
  addOutletApi(app, { sheet, traits, authority, records, posts });

  app.use(boardPath(outlet), (_request, response, next) => {
    // Forms of the board go to itself.
    response.set({ 'content-security-policy': BOARD_POLICY, 'referrer-policy': 'same-origin' });
    next();
  });
  app.get(boardPath(outlet), async (request, response) => {
    const viewer = await authority.findViewer(request, response);
    const shown = records
      .up()
      .filter((post) => resolveAudience(post.form, Date.now()) === 'public' || post.poster === viewer);
    response.type('html').send(boardPage(sheet, shown, weather.now));
  });
  app.post(
    `${boardPath(outlet)}weather`,
    express.urlencoded({ extended: false, limit: '1kb' }),
    (request, response) => {
      const { weather: asked, tokens } = request.body as { weather?: string; tokens?: string };
      const read = weatherSchema.safeParse(asked);
      if (read.success) weather.now = read.data;
      if (tokens === 'expire') authority.expireTokens();
      if (tokens === 'withdraw') authority.withdrawConsent();
      response.redirect(303, boardPath(outlet));
    },
  );
  app.get(`${outletRoot(outlet)}${postPage(':id')}`, async (request, response) => {
    const post = await findVisible(request, response);
    response.status(post ? 200 : 404).type('html');
    response.send(post ? boardPage(sheet, [post], weather.now) : createNoPostPage(sheet));
  });
  app.get(clipPath(outlet, ':id'), async (request, response, next) => {
    const post = await findVisible(request, response);
    if (!post) return next();
    sendFilm(response, next, posts.viewedOf(post.id));
  });
  app.get(coverPath(outlet, ':id'), async (request, response, next) => {
    const post = await findVisible(request, response);
    if (!post?.form.cover) return next();
    sendStill(response, next, posts.coverOf(post.id));
  });
  app.get(captionsPath(outlet, ':id'), async (request, response, next) => {
    const post = await findVisible(request, response);
    if (!post?.form.captions) return next();
    response.type('text/vtt').send(post.form.captions);
  });
  app.get(`${outletRoot(outlet)}/pictures/:file`, (request, response, next) => {
    const picture = findAccountPicture(String(request.params.file).replace(/\.svg$/, ''));
    if (picture === null) return next();
    response.type('image/svg+xml').send(picture);
  });

  /** A post that somebody who knows its address may see: one that is private is its poster's alone. */
  async function findVisible(request: Request, response: Response): Promise<TakenPost | null> {
    const id = String(request.params.id);
    const post = records.withId(id);
    if (post?.state !== 'up') return null;
    return resolveAudience(post.form, Date.now()) !== 'private' ||
      post.poster === (await authority.findViewer(request, response))
      ? post
      : null;
  }

  return { posts, door, weather, authority };
}
