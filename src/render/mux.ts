import {
  EncodedAudioPacketSource,
  EncodedPacket,
  EncodedVideoPacketSource,
  MovOutputFormat,
  Mp4OutputFormat,
  type Output,
  type OutputFormat,
  WebMOutputFormat,
} from 'mediabunny';
import type { RenderPlan } from '@core/render/plan';
import { type Format, FORMATS, type FormatId } from '@core/rate/format';
import { rateValue } from '@core/time/frame-rate';

/** An encoded picture or piece of sound: times in seconds. */
export interface Packet {
  data: Uint8Array<ArrayBuffer>;
  key: boolean;
  timestamp: number;
  duration: number;
}

/** The packets of one track, as they are decoded, and what a decoder is told besides. */
interface Stream<Config> {
  config: Config;
  packets: AsyncIterable<Packet> | Iterable<Packet>;
  /** How many there are at most. */
  count: number;
}

/** Streams of a file. */
export interface Streams {
  picture: Stream<VideoDecoderConfig> | null;
  sound: Stream<AudioDecoderConfig> | null;
}

/** Writers of the containers; those that keep an index in front are told how many packets there are. */
const CONTAINERS: Record<Format['container'], () => OutputFormat> = {
  mp4: () => new Mp4OutputFormat({ fastStart: 'reserve' }),
  mov: () => new MovOutputFormat({ fastStart: 'reserve' }),
  webm: () => new WebMOutputFormat(),
};

/** Writes the container of a format. */
export const createContainer = (format: FormatId): OutputFormat => CONTAINERS[FORMATS[format].container]();

/** A track of a file, and the packets that go into it, in order. */
interface Track {
  packets: AsyncIterator<Packet> | Iterator<Packet>;
  next: Packet | null;
  put(packet: EncodedPacket): Promise<void>;
}

/** Puts streams into a file that was not started yet, its index in front. The file is finished by its owner. */
export async function mux(
  output: Output,
  { frames, rate }: Pick<RenderPlan, 'frames' | 'rate'>,
  format: FormatId,
  { picture, sound }: Streams,
): Promise<void> {
  const { video, audio } = FORMATS[format] as Format;
  const tracks: Promise<Track>[] = [];
  if (picture && video) {
    const source = new EncodedVideoPacketSource(video);
    const meta = { decoderConfig: picture.config };
    output.addVideoTrack(source, { frameRate: rateValue(rate), maximumPacketCount: frames });
    tracks.push(createTrack(picture.packets, (packet) => source.add(packet, meta)));
  }
  if (sound) {
    const source = new EncodedAudioPacketSource(audio);
    const meta = { decoderConfig: sound.config };
    output.addAudioTrack(source, { maximumPacketCount: sound.count });
    tracks.push(createTrack(sound.packets, (packet) => source.add(packet, meta)));
  }
  await output.start();
  await interleave(await Promise.all(tracks));
}

async function createTrack(from: Stream<unknown>['packets'], put: Track['put']): Promise<Track> {
  const packets = Symbol.asyncIterator in from ? from[Symbol.asyncIterator]() : from[Symbol.iterator]();
  return { packets, put, next: (await packets.next()).value ?? null };
}

/** Packets of all tracks in the order of their times. */
async function interleave(tracks: readonly Track[]): Promise<void> {
  for (;;) {
    const [first] = tracks
      .filter((track) => track.next !== null)
      .sort((a, b) => (a.next?.timestamp ?? 0) - (b.next?.timestamp ?? 0));
    if (!first?.next) return;
    const { data, key, timestamp, duration } = first.next;
    first.next = ((await first.packets.next()).value as Packet | undefined) ?? null;
    await first.put(new EncodedPacket(data, key ? 'key' : 'delta', timestamp, duration));
  }
}
