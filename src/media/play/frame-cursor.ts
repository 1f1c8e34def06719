import type { VideoSample } from 'mediabunny';
import type { MasterReader } from '../read/master-reader';

/** Going forward by at most this many frames reads on; further away it seeks. */
const READ_ON = 24;

/** A film that nobody asks for is let go after this long, in milliseconds: its decoder holds frames ahead. */
const REST_AFTER = 5000;

interface Place {
  reader: MasterReader;
  frames: ReturnType<MasterReader['frames']>;
  /** The frame that comes next. */
  next: number;
}

/** A place in a film: a frame a little further on is read without decoding from a key frame again. */
export class FrameCursor {
  private place: Place | null = null;
  private turn: Promise<unknown> = Promise.resolve();
  private rest: ReturnType<typeof setTimeout> | undefined;

  /**
   * Reads a frame, after those that were asked for before.
   * @param isWanted whether it still is; where not, reading stops.
   * @returns null past the last frame, or where it is not wanted any more; else the caller closes it.
   */
  read(reader: MasterReader, frame: number, isWanted = () => true): Promise<VideoSample | null> {
    const reading = this.inTurn(() =>
      this.readNow(reader, frame, isWanted).catch((error: unknown) => {
        // What failed is not read on from.
        this.place = null;
        throw error;
      }),
    );
    this.rest = setTimeout(() => void this.drop(), REST_AFTER);
    return reading;
  }

  /** Lets go of the film. */
  drop(): Promise<void> {
    return this.inTurn(() => this.dropNow());
  }

  private inTurn<T>(act: () => Promise<T>): Promise<T> {
    clearTimeout(this.rest);
    const acting = this.turn.then(act);
    this.turn = acting.catch(() => undefined);
    return acting;
  }

  private async readNow(
    reader: MasterReader,
    frame: number,
    isWanted: () => boolean,
  ): Promise<VideoSample | null> {
    const known = this.place;
    if (!known || known.reader !== reader || frame < known.next || frame > known.next + READ_ON) {
      await this.dropNow();
      this.place = { reader, frames: reader.frames(frame, reader.source.frames), next: frame };
    }
    const { place } = this;
    while (place && place.next <= frame && isWanted()) {
      const step = await place.frames.next();
      if (step.done) {
        await this.dropNow();
        break;
      }
      place.next = step.value.frame + 1;
      if (step.value.frame === frame) return step.value.sample.clone();
    }
    return null;
  }

  private async dropNow(): Promise<void> {
    const { place } = this;
    this.place = null;
    await place?.frames.return();
  }
}
