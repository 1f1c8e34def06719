import { createHash, randomUUID } from 'node:crypto';
import { access, readdir, rename, rm, stat, writeFile } from 'node:fs/promises';
import path from 'node:path';
import { bytesLabel } from '../../../src/core/figures/figures';
import { refusals } from '../../../src/core/outlets/judge';
import type { SentCover, SentFile } from '../../../src/core/outlets/sent';
import type { OutletError, OutletPost } from '../../../src/core/outlets/outlet-api';
import { resolveAudience, type PostForm, postPage } from '../../../src/core/outlets/post-form';
import type { RuleSheet } from '../../../src/core/outlets/rule-sheet';
import { rateLabel, toSeconds } from '../../../src/core/time/frame-rate';
import { lengthLabel } from '../../../src/core/time/timecode';
import { OUTLET_CONTAINERS } from '../../programs/media-args';
import { probeIndex } from '../../programs/probe';
import { ProgramError, type Programs } from '../../programs/programs';
import { whenWritable } from '../../store/when-writable';
import type { UploadEndpoint } from '../../uploads/upload-endpoint';
import { inspectFile, pictureSize } from './inspect';
import type { TakenPost, TakenPosts } from './taken-posts';
import { compressClip } from './viewed';
import type { FaultInjection } from './fault-injection';

/** How far a post is at each of its steps. */
const SHARES = { looking: 0.1, moving: 0.4, processing: 0.5 };

const there = (file: string): Promise<boolean> =>
  access(file).then(
    () => true,
    () => false,
  );

/** Folders and tools with which a clip is moved, compressed and shown. */
interface Places {
  folder: string;
  /** Looks at files, and compresses them. */
  looks: Programs;
  long: Programs;
  weather: FaultInjection;
}

/**
 * Takes posts for an outlet. Each is written down before anything is done to its file, so that a server that ends
 * in between carries it through when it starts again; and each key is posted once, however often it is asked for.
 */
export class Posts {
  private readonly underWay = new Map<string, Promise<void>>();

  constructor(
    private readonly sheet: RuleSheet,
    private readonly records: TakenPosts,
    private readonly door: UploadEndpoint,
    private readonly places: Places,
  ) {}

  /** Files of a post. */
  clipOf = (id: string): string => path.join(this.places.folder, `${id}.mp4`);
  viewedOf = (id: string): string => path.join(this.places.folder, `${id}.viewed.mp4`);
  coverOf = (id: string): string => path.join(this.places.folder, `${id}.jpg`);

  /** Carries through what a server that ended left half done. */
  resume(): void {
    for (const state of ['looking', 'moving', 'processing'] as const)
      for (const { id } of this.records.in(state)) this.go(id);
  }

  /** Resolves when nothing is under way any more. */
  async settled(): Promise<void> {
    await Promise.all(this.underWay.values());
  }

  /**
   * Posts an upload, or answers as before where the same key was posted already.
   * @param key of whoever posts; the same is one post.
   */
  async post(form: PostForm, poster: string, key: string): Promise<OutletPost | OutletError> {
    const noted = notedForm(form);
    const known = this.records.ofKey(poster, key);
    if (known) return sameForm(known.form, noted) ? this.answer(known) : 'key-used';
    if (!this.sheet.placements.some(({ id }) => id === form.placement)) return 'no-placement';
    const state = this.records.uses(form.upload) ? 'missing' : await this.door.state(form.upload);
    if (state !== 'whole') return state === 'missing' ? 'no-upload' : 'partial-upload';
    const id = randomUUID();
    if (form.cover !== null) await writeFile(this.coverOf(id), Buffer.from(form.cover, 'base64'));
    // Another with this key may have come meanwhile.
    const other = this.records.ofKey(poster, key);
    if (other) return sameForm(other.form, noted) ? this.answer(other) : 'key-used';
    if (this.records.uses(form.upload)) return 'no-upload';
    this.records.begin(noted, id, poster, key);
    this.go(id);
    return { id, state: 'processing', share: 0 };
  }

  /** Where a post stands. */
  answer({ id, state, reasons, form, viewed }: TakenPost): OutletPost {
    const [first = 'the outlet could not process it'] = reasons;
    if (state === 'refused') return { id, state, reasons };
    if (state === 'failed') return { id, state, reason: first };
    if (state !== 'up') return { id, state: 'processing', share: SHARES[state] };
    return {
      id,
      state,
      page: postPage(id),
      audience: resolveAudience(form, Date.now()),
      viewed,
    };
  }

  /** Takes a post down, with all its files. */
  async takeDown(id: string): Promise<void> {
    await this.underWay.get(id);
    this.records.forget(id);
    for (const file of [this.clipOf(id), this.viewedOf(id), this.coverOf(id)])
      await rm(file, { force: true });
  }

  isUnderWay(upload: string): boolean {
    return this.records.uses(upload);
  }

  /** Deletes files that no post knows: what a crash, or a post that was taken down, left. */
  async sweep(): Promise<void> {
    for (const file of await readdir(this.places.folder)) {
      const [id = ''] = file.split('.');
      if (!this.records.withId(id)) await rm(path.join(this.places.folder, file), { force: true });
    }
  }

  /** Forgets what came to nothing before a moment. */
  forgetRefused(before: number): void {
    for (const state of ['refused', 'failed'] as const)
      for (const { id, made_at } of this.records.in(state)) if (made_at < before) this.records.forget(id);
  }

  /** Carries a post on from where it stands. */
  private go(id: string): void {
    const work = whenWritable(() => this.carry(id))
      .catch(async (error: unknown) => {
        // A server that ends goes on with it when it starts again.
        if (error instanceof ProgramError && error.reason === 'stopped') return;
        console.error(error);
        await whenWritable(() => this.records.fail(id, 'The outlet failed.'));
      })
      .finally(() => this.underWay.delete(id));
    this.underWay.set(id, work);
  }

  private async carry(id: string): Promise<void> {
    let record = this.records.withId(id);
    if (record?.state === 'looking') await this.look(record);
    record = this.records.withId(id);
    if (record?.state === 'moving') await this.move(record);
    record = this.records.withId(id);
    if (record?.state === 'processing') await this.process(record);
  }

  private async look({ id, form, upload }: TakenPost): Promise<void> {
    const placement = this.sheet.placements.find((placement) => placement.id === form.placement);
    const file = await inspectFile(this.places.looks, this.door.getFile(upload));
    const cover = form.cover === null ? null : await this.readCover(id);
    const reasons =
      file && placement
        ? refusals(file, { ...form, cover }, placement).map(({ reason }) => reason)
        : ['The file is not a video that can be read.'];
    if (!file || reasons.length > 0) {
      await rm(this.coverOf(id), { force: true });
      return this.records.refuse(id, reasons);
    }
    if (this.places.weather.now === 'failing')
      return this.records.fail(id, 'The clip could not be processed.');
    return this.records.take(id, measuredLine(file));
  }

  private async readCover(id: string): Promise<SentCover> {
    const size = await pictureSize(this.places.looks, this.coverOf(id));
    return { bytes: (await fileBytes(this.coverOf(id))) ?? 0, size };
  }

  /** Moves a clip that was taken to where it is shown; also when that was done in part before. */
  private async move({ upload, id }: TakenPost): Promise<void> {
    const clip = this.clipOf(id);
    if (!(await there(clip))) {
      if (!(await there(this.door.getFile(upload)))) throw new Error('a clip that was taken is nowhere');
      await rename(this.door.getFile(upload), clip);
    }
    await this.door.forget(upload);
    this.records.process(id);
  }

  private async process({ id, form }: TakenPost): Promise<void> {
    const placement = this.sheet.placements.find((placement) => placement.id === form.placement);
    const { video } = await probeIndex(this.places.looks, this.clipOf(id), OUTLET_CONTAINERS);
    if (!placement || !video?.width || !video.height)
      throw new Error('a post that was taken has no placement or size');
    const size = { width: video.width, height: video.height };
    const viewed = await compressClip(this.places.long, this.clipOf(id), this.viewedOf(id), size, placement);
    this.records.show(id, viewed);
  }
}

const hashText = (text: string): string => createHash('sha256').update(text).digest('hex');

/** A form as it is recorded: a cover is a file, and in its place stands what it was made of. */
const notedForm = (form: PostForm): PostForm => ({ ...form, cover: form.cover && hashText(form.cover) });

const sameForm = (a: PostForm, b: PostForm): boolean => JSON.stringify(a) === JSON.stringify(b);

const fileBytes = (file: string): Promise<number | null> =>
  stat(file).then(
    ({ size }) => size,
    () => null,
  );

function measuredLine(file: SentFile): string {
  const length = lengthLabel(toSeconds(file.frames, file.rate));
  const { left, top, right, bottom } = file.borders;
  const bars = left + top + right + bottom > 0 ? 'black bars' : 'no black bars';
  return `${file.width}×${file.height}, ${length} at ${rateLabel(file.rate)} fps, ${bytesLabel(file.bytes)}, ${bars}`;
}
