import type { Source } from '@core/master/source';
import { type AnalysisResult, passNames, STRIP } from '@core/pass/pass';
import { type Span, SpanFinder } from '@core/pass/spans';
import { GreyWriter } from './grey-writer';
import { MasterReader } from '../read/master-reader';
import { PassFindings } from './findings';
import { closeTiles, PassLanes, type SeenEvent } from './lanes';
import { listenToSound, trackLevels } from './listen';
import { ProxyWriter } from './proxy-writer';
import type { TaskContext } from '../worker/serve-task';
import { deleteAllStored, writeSmall } from '../store/storage';
import { StripSheets } from './strip-sheets';

/** Request to analyse a whole master, as its file describes it. */
export interface PassRequest {
  source: Source;
  /** Address of the worker that looks at spans of it. */
  laneUrl: string;
}

/** Pictures of a span at least: each ends with its decoder running dry. */
const MIN_SPAN = 60;

/**
 * Decodes a master once, and makes everything of it that the job needs: proxy, filmstrip, grey copies, and the
 * facts of {@link AnalysisResult}. On any failure nothing of it stays.
 */
export async function passOver(
  { source, laneUrl }: PassRequest,
  context: TaskContext,
): Promise<AnalysisResult> {
  const names = passNames(source.fingerprint);
  const reader = await MasterReader.open(source);
  const made = new PassFiles(source);
  try {
    const { spans, bitsBySecond } = await survey(reader);
    const [found, sound] = await Promise.all([
      lookAtAll(spans, { source, laneUrl }, made, context),
      listenToSound(reader, source, context.signal),
    ]);
    const pass: AnalysisResult = {
      schemaVersion: 1,
      fingerprint: source.fingerprint,
      bitsBySecond,
      ...found,
      soundTrack: source.soundTrack,
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

/** Reads a file's index: where it can be divided, and the bits of each second. */
async function survey(reader: MasterReader): Promise<{ spans: Span[]; bitsBySecond: number[] }> {
  const finder = new SpanFinder(MIN_SPAN);
  const bitsBySecond: number[] = [];
  for await (const { timestamp, key, bytes } of reader.codedPictures()) {
    finder.push({ timestamp, key });
    const second = Math.max(0, Math.floor(timestamp - reader.startSeconds));
    while (bitsBySecond.length <= second) bitsBySecond.push(0);
    bitsBySecond[second] = (bitsBySecond[second] as number) + bytes * 8;
  }
  return { spans: finder.finish(), bitsBySecond };
}

async function lookAtAll(
  spans: readonly Span[],
  { source, laneUrl }: PassRequest,
  made: PassFiles,
  { report, signal }: TaskContext,
): Promise<ReturnType<PassFindings['finish']>> {
  const findings = new PassFindings(source);
  const total = spans.reduce((sum, span) => sum + span.pictures, 0);
  let done = 0;
  const lanes = new PassLanes(laneUrl, source, spans, (frames) => {
    done += frames;
    report({ stage: 'pass', done, total });
  });
  try {
    for await (const event of lanes.seen(signal)) {
      try {
        for (const seen of event.seen) findings.push(seen);
        await made.add(event);
      } finally {
        closeTiles(event);
      }
    }
  } finally {
    lanes.close();
  }
  return findings.finish();
}

/** The files that a pass writes as it goes. */
class PassFiles {
  private proxy: ProxyWriter | null = null;
  private grey: GreyWriter | null = null;
  private readonly strip: StripSheets;

  constructor(private readonly source: Source) {
    this.strip = new StripSheets(source);
  }

  async add({ seen, packets, config }: SeenEvent): Promise<void> {
    for (const { frame, grey, tile } of seen) {
      this.grey ??= await GreyWriter.open(this.source.fingerprint, grey);
      this.grey.add(grey);
      if (tile) await this.strip.add(frame, tile);
    }
    if (!config) return;
    this.proxy ??= await ProxyWriter.open(this.source, config);
    for (const packet of packets) await this.proxy.add(packet, config);
  }

  async finish(): Promise<Pick<AnalysisResult, 'proxy' | 'grey' | 'strip'>> {
    if (!this.proxy || !this.grey) throw new Error('not a single frame could be decoded');
    await this.strip.finish();
    return {
      grey: await this.grey.finish(),
      proxy: await this.proxy.finish(),
      strip: { tileWidth: this.strip.tileWidth, tileHeight: STRIP.tileHeight },
    };
  }

  async discard(): Promise<void> {
    await this.proxy?.discard();
    await this.grey?.discard();
    // Sheets, and what was finished already.
    await deleteAllStored('passes', this.source.fingerprint);
  }
}
