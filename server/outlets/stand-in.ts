import { randomUUID } from 'node:crypto';
import { mkdirSync } from 'node:fs';
import { access, rename, rm } from 'node:fs/promises';
import path from 'node:path';
import { FileStore } from '@tus/file-store';
import { Server } from '@tus/server';
import express, { type Express, type Response } from 'express';
import { bytesLabel } from '../../src/core/figures/figures';
import { refusals, type SentFile } from '../../src/core/outlets/judge';
import {
  boardPath,
  type PostAnswer,
  postFormSchema,
  postsPath,
  uploadsPath,
  type PostForm,
} from '../../src/core/outlets/post-form';
import type { RuleSheet } from '../../src/core/outlets/rule-sheet';
import { lengthLabel } from '../../src/core/time/timecode';
import { rateLabel, secondsOf } from '../../src/core/time/frame-rate';
import { boardPage } from './board';
import { inspectFile } from './inspect';
import { PostStore } from './post-store';

/** An upload that nobody finished is deleted after a day, in milliseconds. */
const UPLOAD_LIFE = 24 * 3600 * 1000;

/** Adds an outlet's stand-in to a server: it takes uploads by tus, checks each file itself, and shows what it took. */
export function addStandIn(app: Express, sheet: RuleSheet, dataFolder: string): void {
  const uploads = path.join(dataFolder, sheet.outlet, 'uploads');
  const clips = path.join(dataFolder, sheet.outlet, 'clips');
  for (const folder of [uploads, clips]) mkdirSync(folder, { recursive: true });
  const store = new PostStore(path.join(dataFolder, sheet.outlet, 'posts.json'));
  const tus = new Server({
    path: uploadsPath(sheet.outlet),
    datastore: new FileStore({ directory: uploads, expirationPeriodInMilliseconds: UPLOAD_LIFE }),
    maxSize: Math.max(...sheet.placements.map((one) => one.maxBytes)),
    relativeLocation: true,
  });
  app.all([uploadsPath(sheet.outlet), `${uploadsPath(sheet.outlet)}/:id`], (request, response) =>
    tus.handle(request, response),
  );
  app.post(postsPath(sheet.outlet), express.json({ limit: '64kb' }), async (request, response) => {
    const form = postFormSchema.safeParse(request.body);
    if (!form.success) {
      response.status(400).json({ error: form.error.issues[0]?.message ?? 'the form is not complete' });
      return;
    }
    await answerPost(form.data, response);
  });
  app.use(`${boardPath(sheet.outlet)}clips`, express.static(clips, { index: false }));
  app.get(boardPath(sheet.outlet), async (_request, response) => {
    response.type('html').send(boardPage(sheet, await store.all()));
  });

  async function answerPost(
    form: PostForm,
    response: Response<PostAnswer | { error: string }>,
  ): Promise<void> {
    const placement = sheet.placements.find((one) => one.id === form.placement);
    const sent = path.join(uploads, form.upload);
    const there = await access(sent).then(
      () => true,
      () => false,
    );
    if (!placement || !there) {
      response.status(404).json({ error: placement ? 'the upload is not here' : 'no such placement' });
      return;
    }
    const file = await inspectFile(sent).catch(() => null);
    const reasons = file ? refusals(file, form, placement) : ['The file is not a video that can be read.'];
    if (!file || reasons.length > 0) {
      response.json({ state: 'refused', reasons });
      return;
    }
    const id = randomUUID();
    await rename(sent, path.join(clips, `${id}.mp4`));
    await rm(`${sent}.json`, { force: true });
    const { title, description, tags, audience } = form;
    await store.add({
      id,
      placement: placement.id,
      title,
      description,
      tags,
      audience,
      at: new Date().toISOString(),
      measured: measuredLine(file),
    });
    response.json({ state: 'accepted', page: `${boardPath(sheet.outlet)}#${id}` });
  }
}

function measuredLine(file: SentFile): string {
  const bars = file.borders ? 'no black bars' : 'bars not looked for (no ffmpeg on this server)';
  const length = lengthLabel(secondsOf(file.frames, file.rate));
  return `${file.width}×${file.height}, ${length} at ${rateLabel(file.rate)} fps, ${bytesLabel(file.bytes)}, ${bars}`;
}
