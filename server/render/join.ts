import {
  EncodedPacketSink,
  FilePathTarget,
  type InputAudioTrack,
  type InputVideoTrack,
  Output,
} from 'mediabunny';
import type { RenderPlan } from '../../src/core/render/plan';
import type { FormatId } from '../../src/core/rate/format';
import { rateValue, toSeconds } from '../../src/core/time/frame-rate';
import { createContainer, mux, type Packet, type Streams } from '../../src/render/mux';
import { openMedia } from '../../src/render/open-media';
import type { Segment } from './order';

/** A segment and the file that it was encoded into. */
export interface MadeSegment {
  segment: Segment;
  file: string;
}

/** Joins segments and sound into one file, without encoding anything again. */
export async function join(
  plan: RenderPlan,
  format: FormatId,
  segments: readonly MadeSegment[],
  sound: string | null,
  to: string,
): Promise<void> {
  const inputs = segments.map(({ file }) => openMedia(file));
  const heard = sound === null ? null : openMedia(sound);
  try {
    const videos = await Promise.all(inputs.map((input) => input.getPrimaryVideoTrack()));
    const audio = await heard?.getPrimaryAudioTrack();
    const config = await videos[0]?.getDecoderConfig();
    const streams: Streams = {
      picture: config
        ? {
            config: config,
            count: plan.frames,
            packets: pictures(
              plan,
              segments.map(({ segment }) => segment),
              videos as InputVideoTrack[],
            ),
          }
        : null,
      sound: audio ? await toSound(audio, toSeconds(plan.frames, plan.rate)) : null,
    };
    const output = new Output({ format: createContainer(format), target: new FilePathTarget(to) });
    await mux(output, plan, format, streams);
    await output.finalize();
  } finally {
    for (const input of [...inputs, ...(heard ? [heard] : [])]) input.dispose();
  }
}

/** Pictures of all segments, at the exact times of the clip's frames. */
async function* pictures(
  plan: RenderPlan,
  segments: readonly Segment[],
  tracks: readonly InputVideoTrack[],
): AsyncGenerator<Packet, void, undefined> {
  for (const [i, { start }] of segments.entries()) {
    const track = tracks[i] as InputVideoTrack;
    const first = await track.getFirstTimestamp();
    for await (const { data, type, timestamp } of new EncodedPacketSink(track).packets()) {
      const frame = start + Math.round((timestamp - first) * rateValue(plan.rate));
      const at = toSeconds(frame, plan.rate);
      yield {
        ...{ data: new Uint8Array(data), key: type === 'key', timestamp: at },
        duration: toSeconds(frame + 1, plan.rate) - at,
      };
    }
  }
}

/** Sound that ends with the picture: the last packet reaches past it. */
async function toSound(track: InputAudioTrack, end: number): Promise<NonNullable<Streams['sound']>> {
  const config = await track.getDecoderConfig();
  if (!config) throw new Error('the sound that was encoded cannot be read');
  const { packetCount } = await track.computePacketStats();
  async function* packets(): AsyncGenerator<Packet, void, undefined> {
    for await (const { data, timestamp, duration } of new EncodedPacketSink(track).packets()) {
      const lasts = Math.max(0, Math.min(duration, end - timestamp));
      yield { data: new Uint8Array(data), key: true, timestamp, duration: lasts };
    }
  }
  return { config, packets: packets(), count: packetCount };
}
