import type { Source } from '@core/master/source';
import type { Span } from '@core/pass/spans';
import { toTrouble } from '@core/trouble/trouble';
import type { Kernel } from '@kernel/kernel';
import { taggedColour } from '@render/frame-colour';
import { planarFrame } from '../read/planar-frame';
import { MasterReader } from '../read/master-reader';
import { openKernel } from '../read/open-kernel';
import { FrameAnalyzer } from './frame-analyzer';
import type { LaneEvent, LaneOrder, FrameMeasurements } from './lane-protocol';
import { waitWhilePlaying } from '../play/playing-lock';
import { ProxyEncoder } from './proxy-encoder';
import type { DecodedSpan, SpanDecoder } from '../read/span-decoder';

/** Frames that are told of together. */
const BATCH = 8;

type SendEvent = (event: LaneEvent, transfer?: Transferable[]) => void;

/** Looks at spans of one master: decodes them, makes them small, measures and encodes them. */
class AnalysisWorker {
  private encoder: ProxyEncoder | null = null;
  private batch: FrameMeasurements[] = [];

  private constructor(
    private readonly source: Source,
    private readonly reader: MasterReader,
    private readonly decoder: SpanDecoder,
    private readonly kernel: Kernel,
    private readonly eye: FrameAnalyzer,
    private readonly tell: SendEvent,
  ) {}

  static async open(source: Source, tell: SendEvent): Promise<AnalysisWorker> {
    const reader = await MasterReader.open(source);
    const kernel = await openKernel();
    const eye = new FrameAnalyzer(kernel, source);
    return new AnalysisWorker(source, reader, await reader.spanDecoder(), kernel, eye, tell);
  }

  /** Tells what is seen of each frame of a span, in order, and at last that it is through. */
  async look(span: Span): Promise<void> {
    this.eye.beginSpan();
    this.encoder?.beginSpan();
    for await (const decoded of this.decoder.pictures(span)) {
      try {
        if (this.reader.shows(decoded)) await this.take(decoded);
      } finally {
        decoded.picture.close();
      }
      if (this.batch.length < BATCH) continue;
      this.tellBatch();
      await waitWhilePlaying();
    }
    await this.encoder?.finishSpan();
    this.tellBatch();
    this.tell({ type: 'through' });
  }

  private async take({ picture, timestamp, duration }: DecodedSpan): Promise<void> {
    const frame = Math.max(0, this.reader.toNumber(timestamp));
    const { seen, small } = await this.eye.see(picture, frame);
    this.batch.push(seen);
    const { width, height } = small;
    this.encoder ??= await ProxyEncoder.open(this.source, { width, height });
    const seconds = Math.max(0, timestamp - this.source.startSeconds);
    const times = { timestamp: Math.round(seconds * 1e6), duration: Math.round(duration * 1e6) };
    const proxy = planarFrame(this.kernel, small, times, taggedColour(this.source));
    try {
      await this.encoder.add(proxy);
    } finally {
      proxy.close();
    }
  }

  private tellBatch(): void {
    const { batch, encoder } = this;
    this.batch = [];
    const packets = encoder?.take() ?? [];
    const tiles = batch.flatMap(({ tile }) => (tile ? [tile] : []));
    const transfer = [...tiles, ...packets.map(({ data }) => data.buffer)];
    this.tell({ type: 'seen', seen: batch, packets, config: encoder?.config ?? null }, transfer);
  }
}

/** The worker's side: one file, then its spans as they are ordered. */
export function serveLane(): void {
  const tell: SendEvent = (event, transfer = []) => self.postMessage(event, { transfer });
  let lane: Promise<AnalysisWorker> | null = null;
  let file = 'The master';
  self.onmessage = async ({ data }: MessageEvent<LaneOrder>) => {
    try {
      if (data.type === 'open') {
        file = data.source.fileName;
        lane = AnalysisWorker.open(data.source, tell);
      } else await (await lane)?.look(data.span);
    } catch (error) {
      tell({ type: 'failed', trouble: toTrouble(error, 'damaged', { file }) });
    }
  };
}
