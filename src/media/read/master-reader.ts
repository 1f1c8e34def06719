import {
  type AudioSample,
  AudioSampleSink,
  EncodedPacketSink,
  type VideoSample,
  VideoSampleSink,
} from 'mediabunny';
import type { Source } from '@core/master/source';
import { passNames } from '@core/pass/pass';
import type { CodedPicture } from '@core/pass/spans';
import { TroubleError } from '@core/trouble/trouble';
import { FilmReader, openTracks } from '@render/film-reader';
import { openMedia } from '@render/open-media';
import { SpanDecoder } from './span-decoder';
import { storedFile } from '../store/storage';

/** Reads a stored master, or its proxy. The owner closes it. */
export class MasterReader extends FilmReader {
  /** @throws TroubleError `master-gone` when the browser no longer has the bytes. */
  static async open(source: Source): Promise<MasterReader> {
    const file = await storedFile('masters', source.fingerprint);
    if (!file) throw new TroubleError('master-gone', { file: source.fileName });
    const input = openMedia(file);
    return new MasterReader(source, input, ...(await openTracks(source, input)), source.startSeconds);
  }

  /** The master's proxy, or null while there is none. Its stamps count from the master's first frame. */
  static async openProxy(source: Source): Promise<MasterReader | null> {
    const file = await storedFile('passes', passNames(source.fingerprint).proxy);
    if (!file) return null;
    const input = openMedia(file);
    const video = await input.getPrimaryVideoTrack();
    return video ? new MasterReader(source, input, video, null, 0) : null;
  }

  /** Every coded picture of the file in decoding order, as its index tells of it. */
  async *codedPictures(): AsyncGenerator<CodedPicture & { bytes: number }, void, undefined> {
    const packets = new EncodedPacketSink(this.video).packets(undefined, undefined, { metadataOnly: true });
    for await (const { timestamp, type, byteLength } of packets) {
      yield { timestamp, key: type === 'key', bytes: byteLength };
    }
  }

  /** Decodes spans of the file. Whoever opens it closes it. */
  spanDecoder(): Promise<SpanDecoder> {
    return SpanDecoder.open(this.video);
  }

  /** Tells whether a picture is still on screen when the first frame begins. */
  shows({ timestamp, duration }: { timestamp: number; duration: number }): boolean {
    return timestamp >= this.startSeconds || timestamp + duration > this.startSeconds + 1e-6;
  }

  /** The key frame at or before a frame: near it, and there at once; the caller closes the sample. */
  async nearFrame(frame: number): Promise<VideoSample | null> {
    const key = await new EncodedPacketSink(this.video).getKeyPacket(this.toTimestamp(frame), {
      metadataOnly: true,
    });
    return key ? new VideoSampleSink(this.video).getSample(key.timestamp) : null;
  }

  /** Decoded sound of each track besides the one that clips take; null for one that cannot be decoded. */
  async otherSounds(): Promise<(AsyncGenerator<AudioSample, void, unknown> | null)[]> {
    const others = (await this.input.getAudioTracks()).filter((track) => track.id !== this.audio?.id);
    return Promise.all(
      others.map(async (track) =>
        (await track.canDecode()) ? new AudioSampleSink(track).samples(this.startSeconds) : null,
      ),
    );
  }
}
