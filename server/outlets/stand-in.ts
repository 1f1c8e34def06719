import { mkdirSync } from 'node:fs';
import path from 'node:path';
import express, { type Express } from 'express';
import {
  boardPath,
  clipPath,
  coverPath,
  type PostAnswer,
  postFormSchema,
  postPage,
  postsPath,
  uploadsPath,
} from '../../src/core/outlets/post-form';
import type { RuleSheet } from '../../src/core/outlets/rule-sheet';
import { sendFilm, sendStill } from '../send-file';
import { UploadDoor } from '../uploads/upload-door';
import { markedVisitor, visitorOf } from '../visitor';
import type { Workshop } from '../workshop';
import { boardPage, noPostPage } from './board';
import { type PostRecord, PostRecords } from './post-records';
import { type PostProblem, Posts } from './posts';

/** How a post that was neither taken nor refused is answered. */
const PROBLEMS: Record<PostProblem, [status: number, error: string]> = {
  'no-placement': [404, 'no such placement'],
  'no-upload': [404, 'the upload is not here'],
  'partial-upload': [409, 'the upload is not complete'],
};
/** A form with its cover. */
const MOST_FORM = '9mb';
const POST_ID = /^[0-9a-f-]{36}$/;

/** An outlet's stand-in on a server. */
export interface StandIn {
  posts: Posts;
  door: UploadDoor;
}

/** Adds an outlet's stand-in to a server: it takes uploads by tus, checks each file itself, and shows what it took. */
export function addStandIn(app: Express, sheet: RuleSheet, { database, data, looks }: Workshop): StandIn {
  const { outlet } = sheet;
  const clips = path.join(data, outlet, 'clips');
  mkdirSync(clips, { recursive: true });
  const door = UploadDoor.add(app, database, {
    name: outlet,
    address: uploadsPath(outlet),
    folder: path.join(data, outlet, 'uploads'),
    mostBytes: Math.max(...sheet.placements.map((placement) => placement.mostBytes)),
  });
  const records = new PostRecords(database, outlet);
  const posts = new Posts(sheet, records, door, clips, looks);

  app.post(postsPath(outlet), express.json({ limit: MOST_FORM }), async (request, response) => {
    const form = postFormSchema.safeParse(request.body);
    if (!form.success) {
      response.status(400).json({ error: form.error.issues[0]?.message ?? 'the form is not complete' });
      return;
    }
    const answer: PostAnswer | PostProblem = await posts.post(form.data, markedVisitor(request, response));
    if (typeof answer !== 'string') {
      response.json(answer);
      return;
    }
    const [status, error] = PROBLEMS[answer];
    response.status(status).json({ error });
  });
  app.get(boardPath(outlet), (request, response) => {
    const visitor = visitorOf(request);
    const shown = records.up().filter((post) => post.form.audience === 'public' || post.poster === visitor);
    response.type('html').send(boardPage(sheet, shown));
  });
  app.get(postPage(outlet, ':id'), (request, response) => {
    const post = seen(String(request.params.id), visitorOf(request));
    response.status(post ? 200 : 404).type('html');
    response.send(post ? boardPage(sheet, [post]) : noPostPage(sheet));
  });
  app.get(clipPath(outlet, ':id'), (request, response, next) => {
    const post = seen(String(request.params.id), visitorOf(request));
    if (!post) return next();
    sendFilm(response, next, posts.clipOf(post.id));
  });
  app.get(coverPath(outlet, ':id'), (request, response, next) => {
    const post = seen(String(request.params.id), visitorOf(request));
    if (!post?.form.cover) return next();
    sendStill(response, next, posts.coverOf(post.id));
  });

  /** A post that somebody who knows its address may see: one that is private is its poster's alone. */
  function seen(id: string, visitor: string | null): PostRecord | null {
    const post = POST_ID.test(id) ? records.withId(id) : null;
    if (post?.state !== 'up') return null;
    return post.form.audience !== 'private' || post.poster === visitor ? post : null;
  }

  return { posts, door };
}
