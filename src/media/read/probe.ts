import { toSeconds } from '@core/time/frame-rate';
import {
  EncodedPacketSink,
  type Input,
  type InputAudioTrack,
  type InputVideoTrack,
  UnsupportedInputFormatError,
} from 'mediabunny';
import { type AudioFacts, type FileFacts, findAbsurdFact } from '@core/master/master';
import { depthByCodecString, readSequenceFacts } from '@core/picture/h264';
import { nearestAspect, uprightSize } from '@core/picture/orientation';
import { detectRate } from '@core/time/detect-rate';
import { TroubleError } from '@core/trouble/trouble';
import { openMedia } from '@render/open-media';

/** Sides below this are no picture to make a clip from, in pixels. */
const MIN_SIDE = 16;

/**
 * Reads a file's facts from its container, without decoding.
 *
 * @param sound the sound track to take, from 0, or null for silence; without it the first.
 * @throws TroubleError when the file is empty, no video, cut off, or coded in what this browser lacks.
 */
export async function probeFile(file: File, sound?: number | null): Promise<FileFacts> {
  if (file.size === 0) throw new TroubleError('empty-file', { file: file.name });
  const input = openMedia(file);
  try {
    const video = await primaryVideo(input, file.name);
    const packets = await packetTimes(video);
    if (packets.stamps.length === 0) throw new TroubleError('no-frames', { file: file.name });
    await requireWhole(video, file, packets);
    const codec = await video.getCodec();
    if (!codec || !(await video.canDecode())) {
      throw new TroubleError('codec-missing', {
        file: file.name,
        codec: codec ?? String(await video.getInternalCodecId()),
      });
    }
    const detected = detectRate(packets.stamps, packets.lastDuration);
    const { rate, frames } = detected;
    const coded = { width: await video.getCodedWidth(), height: await video.getCodedHeight() };
    const pixelAspect = nearestAspect(await video.getPixelAspectRatio(), coded.width);
    const rotation = await video.getRotation();
    const picture = uprightSize(coded, pixelAspect, rotation);
    if (Math.min(picture.width, picture.height) < MIN_SIDE) {
      throw new TroubleError('too-small', { file: file.name, ...picture });
    }
    const colour = await video.getColorSpace();
    if (colour.matrix === 'rgb') throw new TroubleError('rgb-planes', { file: file.name });
    const codecString = (await video.getCodecParameterString()) ?? codec;
    const audioTracks = await Promise.all((await input.getAudioTracks()).map(audioFacts));
    const soundTrack = chooseSoundTrack(audioTracks, sound, file.name);
    const facts: FileFacts = {
      fileName: file.name,
      bytes: file.size,
      container: (await input.getFormat()).name,
      picture,
      coded,
      pixelAspect,
      rotation,
      flip: await video.getFlip(),
      rate,
      constantRate: detected.constant,
      frameTimes: detected.times,
      repeated: detected.repeated,
      dropped: detected.dropped,
      frames,
      startSeconds: Math.min(...firstFew(packets.stamps)),
      video: {
        codec,
        codecString,
        ...(await streamFacts(video, codecString)),
        bits: Math.round((packets.bytes * 8) / toSeconds(frames, rate)),
      },
      colour: {
        matrix: colour.matrix ?? null,
        primaries: colour.primaries ?? null,
        transfer: colour.transfer ?? null,
        fullRange: colour.fullRange ?? null,
      },
      audio: soundTrack === null ? null : (audioTracks[soundTrack] ?? null),
      audioTracks,
      soundTrack,
    };
    const absurd = findAbsurdFact(facts);
    if (absurd !== null) throw new TroubleError('absurd-fact', { file: file.name, fact: absurd });
    return facts;
  } catch (error) {
    throw explainError(error, file.name);
  } finally {
    input.dispose();
  }
}

/** Reads depth and fields from the codec's own header. */
async function streamFacts(
  video: InputVideoTrack,
  codecString: string,
): Promise<{ depth: number | null; interlaced: boolean | null }> {
  const config = await video.getDecoderConfig();
  const record = config?.description;
  const sequence = codecString.startsWith('avc') && record ? readSequenceFacts(toBytes(record)) : null;
  return {
    depth: sequence?.depth ?? depthByCodecString(codecString),
    interlaced: sequence?.interlaced ?? null,
  };
}

const toBytes = (source: AllowSharedBufferSource): Uint8Array =>
  ArrayBuffer.isView(source)
    ? new Uint8Array(source.buffer, source.byteOffset, source.byteLength)
    : new Uint8Array(source);

/** Reordered frames come within a few packets of each other: the first stamp is among these. */
const firstFew = (stamps: number[]): number[] => stamps.slice(0, 64);

/** Reads the facts of a file's first sound from its container; null where it has none. */
export async function probeSound(file: File): Promise<AudioFacts | null> {
  const input = openMedia(file);
  try {
    const [track] = await input.getAudioTracks();
    return track ? await audioFacts(track) : null;
  } finally {
    input.dispose();
  }
}

async function primaryVideo(input: Input, file: string): Promise<InputVideoTrack> {
  const video = await input.getPrimaryVideoTrack();
  if (video) return video;
  // A container without any track lost its index: it was not written to its end.
  throw new TroubleError((await input.getTracks()).length ? 'no-video' : 'cut-off', { file });
}

interface PacketTimes {
  /** Start of every frame, in seconds, in decoding order. */
  stamps: number[];
  lastDuration: number;
  bytes: number;
}

async function packetTimes(video: InputVideoTrack): Promise<PacketTimes> {
  const times: PacketTimes = { stamps: [], lastDuration: 0, bytes: 0 };
  for await (const packet of new EncodedPacketSink(video).packets(undefined, undefined, {
    metadataOnly: true,
  })) {
    // Stamps before zero are cut away by the file's own edit list.
    if (packet.timestamp + packet.duration <= 0) continue;
    times.stamps.push(packet.timestamp);
    times.lastDuration = packet.duration;
    times.bytes += packet.byteLength;
  }
  return times;
}

/** How much longer a container says it is than its packets reach, before it counts as cut off. */
const MISSING_SECONDS = 1;

async function requireWhole(
  video: InputVideoTrack,
  file: File,
  { stamps, lastDuration }: PacketTimes,
): Promise<void> {
  const end = stamps.reduce((latest, stamp) => Math.max(latest, stamp), 0);
  const declared = await video.getDurationFromMetadata();
  if (declared !== null && declared > end + lastDuration + MISSING_SECONDS) {
    throw new TroubleError('cut-off', { file: file.name });
  }
  const last = await new EncodedPacketSink(video).getPacket(end).catch(() => null);
  if (!last || last.data.byteLength < last.byteLength) throw new TroubleError('cut-off', { file: file.name });
}

/**
 * Chooses the track that a clip takes its sound from.
 * @throws TroubleError `sound-missing` for one that cannot be decoded.
 */
function chooseSoundTrack(
  tracks: readonly AudioFacts[],
  wish: number | null | undefined,
  file: string,
): number | null {
  if (wish === null || tracks.length === 0) return null;
  const wanted = tracks[wish ?? 0] ?? tracks[0];
  if (wanted?.decodable) return tracks.indexOf(wanted);
  const others = tracks.flatMap(({ decodable, codec, channels }, track) =>
    decodable ? [{ track, codec, channels }] : [],
  );
  throw new TroubleError('sound-missing', { file, codec: wanted?.codec ?? 'unknown', others });
}

async function audioFacts(audio: InputAudioTrack): Promise<AudioFacts> {
  const codec = await audio.getCodec();
  return {
    codec: codec ?? String((await audio.getInternalCodecId()) ?? 'unknown'),
    decodable: await audio.canDecode(),
    sampleRate: await audio.getSampleRate(),
    channels: await audio.getNumberOfChannels(),
    bits: Math.round((await audio.computePacketStats(512)).averageBitrate),
  };
}

/** The reader's own errors mean one of two things: no container it knows, or a container with its index missing. */
function explainError(error: unknown, file: string): unknown {
  if (error instanceof TroubleError) return error;
  if (error instanceof UnsupportedInputFormatError) return new TroubleError('not-media', { file });
  return new TroubleError('cut-off', { file });
}
