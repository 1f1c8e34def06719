import { createHash, randomUUID } from 'node:crypto';
import { access, readdir, rename, rm, writeFile } from 'node:fs/promises';
import path from 'node:path';
import { bytesLabel } from '../../src/core/figures/figures';
import { refusals, type SentCover, type SentFile } from '../../src/core/outlets/judge';
import { type PostAnswer, type PostForm, postPage } from '../../src/core/outlets/post-form';
import type { RuleSheet } from '../../src/core/outlets/rule-sheet';
import { rateLabel, secondsOf } from '../../src/core/time/frame-rate';
import { lengthLabel } from '../../src/core/time/timecode';
import type { Programs } from '../programs/programs';
import type { UploadDoor } from '../uploads/upload-door';
import { inspectFile, pictureSize } from './inspect';
import type { PostRecord, PostRecords } from './post-records';

/** Why a post could be neither taken nor refused. */
export type PostProblem = 'no-placement' | 'no-upload' | 'partial-upload';

const there = (file: string): Promise<boolean> =>
  access(file).then(
    () => true,
    () => false,
  );

/**
 * Takes posts for an outlet. Each is written down before anything is done to its file, so that a server that ends
 * in between carries it through when it starts again; and each upload is posted once, however often it is asked for.
 */
export class Posts {
  private readonly underWay = new Map<string, Promise<PostAnswer | PostProblem>>();

  constructor(
    private readonly sheet: RuleSheet,
    private readonly records: PostRecords,
    private readonly door: UploadDoor,
    private readonly folder: string,
    private readonly looks: Programs,
  ) {}

  clipOf(id: string): string {
    return path.join(this.folder, `${id}.mp4`);
  }

  coverOf(id: string): string {
    return path.join(this.folder, `${id}.jpg`);
  }

  /** Carries through what a server that ended left half done. */
  async resume(): Promise<void> {
    // Nothing was done to these: their uploads wait to be posted again.
    for (const { upload } of this.records.in('looking')) this.records.forget(upload);
    for (const record of this.records.in('moving')) await this.move(record);
  }

  /** Posts an upload, or answers as before when it was posted already. @throws ProgramError */
  post(form: PostForm, poster: string): Promise<PostAnswer | PostProblem> {
    const running = this.underWay.get(form.upload);
    if (running) return running;
    const work = this.answerTo(form, poster).finally(() => this.underWay.delete(form.upload));
    this.underWay.set(form.upload, work);
    return work;
  }

  isUnderWay(upload: string): boolean {
    return this.underWay.has(upload);
  }

  /** Deletes clips and covers that no post knows: what a crash, or a post that was taken back, left. */
  async sweep(): Promise<void> {
    for (const file of await readdir(this.folder)) {
      if (!this.records.withId(file.replace(/\.(mp4|jpg)$/, '')))
        await rm(path.join(this.folder, file), { force: true });
    }
  }

  /** Forgets what was refused before a moment. */
  forgetRefused(before: number): void {
    for (const { upload, made_at } of this.records.in('refused'))
      if (made_at < before) this.records.forget(upload);
  }

  private async answerTo(form: PostForm, poster: string): Promise<PostAnswer | PostProblem> {
    const known = this.records.ofUpload(form.upload);
    // A cover is a file: in the record stands what it was made of.
    const noted = { ...form, cover: form.cover && hashOf(form.cover) };
    if (known && (known.state !== 'refused' || sameForm(known.form, noted))) return this.answer(known);
    const placement = this.sheet.placements.find((placement) => placement.id === form.placement);
    if (!placement) return 'no-placement';
    const state = await this.door.state(form.upload);
    if (state !== 'whole') return state === 'missing' ? 'no-upload' : 'partial-upload';
    const id = randomUUID();
    this.records.begin(noted, id, poster);
    try {
      const file = await inspectFile(this.looks, this.door.fileOf(form.upload));
      const cover = form.cover === null ? null : await this.keepCover(id, form.cover);
      const reasons = file
        ? refusals(file, { ...form, cover }, placement).map(({ reason }) => reason)
        : ['The file is not a video that can be read.'];
      if (!file || reasons.length > 0) this.records.refuse(form.upload, reasons);
      else this.records.take(form.upload, measuredLine(file));
    } catch (error) {
      // Nothing was decided: it may be posted again.
      this.records.forget(form.upload);
      throw error;
    }
    const record = this.records.ofUpload(form.upload);
    if (!record) throw new Error('a post that was written down is not there');
    return this.answer(record);
  }

  /** Writes a cover beside where its clip will be, and reads it as a picture. @throws ProgramError */
  private async keepCover(id: string, text: string): Promise<SentCover> {
    const bytes = Buffer.from(text, 'base64');
    await writeFile(this.coverOf(id), bytes);
    return { bytes: bytes.length, size: await pictureSize(this.looks, this.coverOf(id)) };
  }

  private async answer(record: PostRecord): Promise<PostAnswer> {
    if (record.state === 'refused') return { state: 'refused', reasons: record.reasons };
    if (record.state === 'moving') await this.move(record);
    return { state: 'accepted', page: postPage(this.sheet.outlet, record.id) };
  }

  /** Moves a clip that was taken to where it is shown; also when that was done in part before. */
  private async move({ upload, id }: PostRecord): Promise<void> {
    const clip = this.clipOf(id);
    if (!(await there(clip))) {
      if (!(await there(this.door.fileOf(upload)))) {
        this.records.forget(upload);
        throw new Error('a clip that was taken is nowhere');
      }
      await rename(this.door.fileOf(upload), clip);
    }
    await this.door.forget(upload);
    this.records.show(upload);
  }
}

const hashOf = (text: string): string => createHash('sha256').update(text).digest('hex');

const sameForm = (a: PostForm, b: PostForm): boolean => JSON.stringify(a) === JSON.stringify(b);

function measuredLine(file: SentFile): string {
  const length = lengthLabel(secondsOf(file.frames, file.rate));
  const { left, top, right, bottom } = file.borders;
  const bars = left + top + right + bottom > 0 ? 'black bars' : 'no black bars';
  return `${file.width}×${file.height}, ${length} at ${rateLabel(file.rate)} fps, ${bytesLabel(file.bytes)}, ${bars}`;
}
