import { busyPart } from '@core/follow/busy';
import { DETECT_EVERY, type LookedSpan, type Sample, sampleStep } from '@core/follow/evidence';
import { Sampler } from '@core/follow/sampler';
import { buildTracks } from '@core/follow/tracks';
import { WHOLE } from '@core/framing/window';
import type { Source } from '@core/master/source';
import { rateValue } from '@core/time/frame-rate';
import { drawUpright } from '../play/draw-upright';
import { waitWhilePlaying } from '../play/playing-lock';
import { type Picture, toPreviewPicture } from '../play/preview-picture';
import { MasterReader } from '../read/master-reader';
import { throwIfStopped, type TaskContext } from '../worker/serve-task';
import { type Detections, Detector } from './detector';
import { SmallPictures } from './small-pictures';

/** Frames of a master that are to be looked at for following; each range is of one shot. */
export interface EvidenceRequest {
  /** As its file says it is: frames count at its own rate. */
  source: Source;
  ranges: { in: number; out: number }[];
}

/** How far it is, and each range as soon as it was looked at. */
export interface EvidenceProgress {
  /** Frames that were looked at. */
  done: number;
  span: LookedSpan | null;
}

/**
 * Looks for subjects in ranges of a master: by detectors and by movement, from its proxy while there is one.
 * @returns the number of frames that were looked at. @throws TroubleError `master-gone`, `cancelled`.
 */
export async function gatherEvidence(
  { source, ranges }: EvidenceRequest,
  context: TaskContext<EvidenceProgress>,
): Promise<number> {
  const reader = (await MasterReader.openProxy(source)) ?? (await MasterReader.open(source));
  try {
    const eye = new RangeEye(source, await Detector.open());
    let done = 0;
    for (const range of ranges) {
      const from = done;
      const report = (frames: number, span: LookedSpan | null) =>
        context.report({ done: from + frames, span });
      const samples = await eye.look(reader, range, (frames) => report(frames, null), context.signal);
      done += range.out - range.in;
      const tracks = buildTracks(samples, rateValue(source.rate));
      report(range.out - range.in, { ...range, tracks, busy: busyPart(samples) });
    }
    return done;
  } finally {
    reader.close();
  }
}

class RangeEye {
  private readonly small: SmallPictures;

  constructor(
    private readonly source: Source,
    private readonly detector: Detector,
  ) {
    this.small = new SmallPictures(source);
  }

  /** Samples of a range. @param onFrame told how many of its frames were seen. */
  async look(
    reader: MasterReader,
    range: { in: number; out: number },
    onFrame: (frames: number) => void,
    signal: AbortSignal,
  ): Promise<Sample[]> {
    const step = sampleStep(rateValue(this.source.rate));
    const sampler = new Sampler();
    const made: Sample[] = [];
    let count = 0;
    for await (const { frame, sample } of reader.frames(range.in, range.out)) {
      if ((frame - range.in) % step !== 0) continue;
      throwIfStopped(signal);
      const picture = await toPreviewPicture(sample.clone(), this.source, false);
      try {
        const detected = count % DETECT_EVERY === 0 ? await this.detect(picture) : null;
        made.push(...sampler.take(frame, this.small.take(picture), detected));
      } finally {
        picture.close();
      }
      count += 1;
      onFrame(frame - range.in);
      await waitWhilePlaying();
    }
    return [...made, ...sampler.end()];
  }

  private detect(picture: Picture): Promise<Detections[]> {
    const { width, height } = this.source.picture;
    return this.detector.detect(
      (ink, to) => drawUpright(ink, picture, this.source, WHOLE, WHOLE, to),
      width / height,
    );
  }
}
