import { sampleStep, type Track, type TrackPoint } from '@core/follow/evidence';
import { type PatchPlace, PatchTracker } from '@core/follow/patch-tracker';
import type { Source } from '@core/master/source';
import type { Grey } from '@core/pass/grey';
import type { PictureRect, Rect } from '@core/picture/size';
import { rateValue } from '@core/time/frame-rate';
import { waitWhilePlaying } from '../play/playing-lock';
import { toPreviewPicture } from '../play/preview-picture';
import { MasterReader } from '../read/master-reader';
import { throwIfStopped, type TaskContext } from '../worker/serve-task';
import { SmallPictures } from './small-pictures';

/** A box that a person drew around something, to be followed through its shot both ways. */
export interface BoxRequest {
  /** As its file says it is: frames count at its own rate. */
  source: Source;
  /** The shot's frames, half-open. */
  in: number;
  out: number;
  /** Where the box was drawn, and the box: 0…1 of the upright picture. */
  frame: number;
  box: PictureRect;
}

/** Going backward, so many samples are decoded at a time. */
const CHUNK = 40;

interface SmallFrame {
  frame: number;
  grey: Grey;
}

/** Follows a box forward and backward by what it looks like. @throws TroubleError `master-gone`, `cancelled`. */
export async function followBox(request: BoxRequest, context: TaskContext): Promise<Track> {
  const { source, box, frame } = request;
  const reader = (await MasterReader.openProxy(source)) ?? (await MasterReader.open(source));
  const walk = new SampleWalk(reader, source, context.signal);
  const total = request.out - request.in;
  let done = 0;
  const run = async (pictures: AsyncGenerator<SmallFrame>): Promise<TrackPoint[]> => {
    let tracker: PatchTracker | null = null;
    const points: TrackPoint[] = [];
    for await (const { frame, grey } of pictures) {
      const place: PatchPlace = tracker?.next(grey) ?? { box: inSamples(box, grey), score: 1, found: true };
      tracker ??= new PatchTracker(grey, place.box);
      points.push({
        frame,
        box: ofPicture(place.box, grey),
        confidence: place.found ? Math.max(0.05, Math.min(1, place.score)) : 0,
      });
      done += walk.step;
      context.report({ stage: 'box', done: Math.min(done, total), total });
    }
    return seenPart(points);
  };
  try {
    const after = await run(walk.forward(frame, request.out));
    const before = await run(walk.backward(frame, request.in));
    return { kind: 'drawn', look: null, points: [...before.slice(1).reverse(), ...after] };
  } finally {
    reader.close();
  }
}

/** Points up to where it was last seen. */
function seenPart(points: readonly TrackPoint[]): TrackPoint[] {
  return points.slice(0, points.findLastIndex(({ confidence }) => confidence > 0) + 1);
}

/** Samples of a master made small, from a frame on in either direction. */
class SampleWalk {
  readonly step: number;
  private readonly small: SmallPictures;

  constructor(
    private readonly reader: MasterReader,
    private readonly source: Source,
    private readonly signal: AbortSignal,
  ) {
    this.step = sampleStep(rateValue(source.rate));
    this.small = new SmallPictures(source);
  }

  async *forward(from: number, out: number): AsyncGenerator<SmallFrame> {
    for await (const { frame, sample } of this.reader.frames(from, out)) {
      if ((frame - from) % this.step !== 0) continue;
      throwIfStopped(this.signal);
      const picture = await toPreviewPicture(sample.clone(), this.source, false);
      try {
        yield { frame, grey: this.small.take(picture).grey };
      } finally {
        picture.close();
      }
      await waitWhilePlaying();
    }
  }

  async *backward(from: number, first: number): AsyncGenerator<SmallFrame> {
    for (let last = from; last >= first; last -= CHUNK * this.step) {
      const earliest = Math.max(first, last - (CHUNK - 1) * this.step);
      const start = last - Math.floor((last - earliest) / this.step) * this.step;
      const chunk: SmallFrame[] = [];
      for await (const small of this.forward(start, last + 1)) chunk.push(small);
      yield* chunk.reverse();
    }
  }
}

const inSamples = ({ x, y, width, height }: PictureRect, grey: Grey): Rect => ({
  x: x * grey.width,
  y: y * grey.height,
  width: width * grey.width,
  height: height * grey.height,
});
const ofPicture = ({ x, y, width, height }: Rect, grey: Grey): PictureRect => ({
  x: x / grey.width,
  y: y / grey.height,
  width: width / grey.width,
  height: height / grey.height,
});
