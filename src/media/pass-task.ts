import type { Source } from '@core/job/source';
import { type Pass, passNames, STRIP } from '@core/pass/pass';
import { Kernel } from '@kernel/kernel';
import kernelUrl from '@kernel/kernel.wasm';
import { MasterReader } from './master-reader';
import { PassPictures, type Small } from './pass-pictures';
import { listen, trackLevels } from './pass-sound';
import { waitWhilePlaying } from './playing-lock';
import { frameOf, ProxyWriter } from './proxy-writer';
import { throwIfStopped, type TaskContext } from './serve-task';
import { deleteStored, openWriter, type StoredWriter, writeSmall } from './storage';
import { StripSheets } from './strip-sheets';

/** One look at a whole master, as its file says it is. */
export interface PassRequest {
  source: Source;
}

/** Progress is told every so many frames. */
const REPORT_EVERY = 10;
/** Grey copies are written this many at a time. */
const GREY_BATCH = 32;

/**
 * Decodes a master once, and makes everything of it that the job needs: proxy, filmstrip, grey copies, and the
 * facts of {@link Pass}. On any failure nothing of it stays.
 */
export async function passOver({ source }: PassRequest, context: TaskContext): Promise<Pass> {
  const names = passNames(source.fingerprint);
  const reader = await MasterReader.open(source);
  const made = new Made(source);
  try {
    const [pictures, sound] = await Promise.all([
      lookAtAll(reader, source, made, context),
      listen(reader, source, context.signal),
    ]);
    const { live, ...found } = pictures;
    const pass: Pass = {
      schemaVersion: 1,
      fingerprint: source.fingerprint,
      bitsBySecond: await reader.bitsBySecond(),
      ...found,
      live: live.live,
      liveConfidence: live.confidence,
      sound: sound?.facts ?? null,
      otherTracks: await trackLevels(reader, context.signal),
      ...(await made.finish()),
    };
    if (sound) await writeSmall('passes', names.wave, new Blob([sound.wave]));
    await writeSmall('passes', names.facts, new Blob([JSON.stringify(pass)]));
    return pass;
  } catch (error) {
    await made.discard();
    throw error;
  } finally {
    reader.close();
  }
}

async function lookAtAll(
  reader: MasterReader,
  source: Source,
  made: Made,
  { report, signal }: TaskContext,
): Promise<ReturnType<PassPictures['finish']>> {
  const kernel = await Kernel.load(await (await fetch(kernelUrl)).arrayBuffer());
  const pictures = new PassPictures(kernel, source);
  let n = 0;
  for await (const { frame, sample } of reader.pictures()) {
    throwIfStopped(signal);
    const seconds = sample.timestamp - source.startSeconds;
    const { duration } = sample;
    await made.add(kernel, await pictures.look(sample, frame), { frame, seconds, duration });
    n += 1;
    if (n % REPORT_EVERY !== 0) continue;
    report({ stage: 'pass', done: frame, total: source.frames });
    await waitWhilePlaying();
  }
  return pictures.finish();
}

/** The files that a pass writes as it goes. */
class Made {
  private proxy: ProxyWriter | null = null;
  private readonly strip: StripSheets;
  private grey: {
    writer: StoredWriter;
    batch: Uint8Array<ArrayBuffer>;
    width: number;
    height: number;
  } | null = null;
  private greys = 0;

  constructor(private readonly source: Source) {
    this.strip = new StripSheets(source);
  }

  async add(
    kernel: Kernel,
    { picture, grey }: Small,
    { frame, seconds, duration }: { frame: number; seconds: number; duration: number },
  ): Promise<void> {
    const { source } = this;
    const { width, height } = picture;
    this.proxy ??= await ProxyWriter.open(source, { width, height });
    const small = frameOf(kernel, picture, source, seconds);
    try {
      await this.proxy.add(small, seconds, duration);
      await this.strip.add(frame, () => ({ image: small, size: { width, height } }));
    } finally {
      small.close();
    }
    await this.addGrey(grey);
  }

  private async addGrey({ width, height, data }: Small['grey']): Promise<void> {
    this.grey ??= {
      writer: await openWriter('passes', passNames(this.source.fingerprint).grey),
      batch: new Uint8Array(width * height * GREY_BATCH),
      width,
      height,
    };
    this.grey.batch.set(data, (this.greys % GREY_BATCH) * data.length);
    this.greys += 1;
    if (this.greys % GREY_BATCH === 0) this.writeGreys(GREY_BATCH);
  }

  private writeGreys(count: number): void {
    if (!this.grey || count === 0) return;
    const size = this.grey.width * this.grey.height;
    this.grey.writer.write(this.grey.batch.subarray(0, count * size), (this.greys - count) * size);
  }

  async finish(): Promise<Pick<Pass, 'proxy' | 'grey' | 'strip'>> {
    if (!this.proxy || !this.grey) throw new Error('not a single frame could be decoded');
    this.writeGreys(this.greys % GREY_BATCH);
    await this.grey.writer.finish();
    await this.strip.finish();
    const { width, height } = this.grey;
    return {
      proxy: await this.proxy.finish(),
      grey: { width, height, frames: this.greys },
      strip: { tileWidth: this.strip.tileWidth, tileHeight: STRIP.tileHeight },
    };
  }

  async discard(): Promise<void> {
    const names = passNames(this.source.fingerprint);
    await this.proxy?.discard();
    await this.grey?.writer.discard().catch(() => undefined);
    for (const name of [names.facts, names.wave, names.grey]) await deleteStored('passes', name);
  }
}
