import { registerAacEncoder } from '@mediabunny/aac-encoder';
import { AudioSampleSource, type EncodedPacket, Quality, VideoSampleSource } from 'mediabunny';
import { AUDIO_BITS } from '@core/rate/bit-rate';
import { highProfileCodec, lowestLevel } from '@core/rate/level';
import { exportSound } from '@core/render/export-sound';
import type { RenderPlan } from '@core/render/plan';
import { rateValue, secondsOf } from '@core/time/frame-rate';
import { TroubleError } from '@core/trouble/trouble';
import { StoredMp4 } from '../../store/stored-mp4';
import { PARAMETERS_IN_STREAM } from '../../store/avc-stream';
import type { Maker } from '../maker';

/** A key frame at least this often, in seconds: phones step and outlets cut at key frames. */
const KEY_FRAME_SECONDS = 2;

/** MP4 with its index in front, of H.264 High and AAC. */
export const mp4Maker: Maker = {
  async open({ name, plan, videoBits }) {
    const picture = await pictureSource(plan, videoBits);
    const file = await StoredMp4.open('exports', name, 'reserve');
    file.output.addVideoTrack(picture, { frameRate: rateValue(plan.rate), maximumPacketCount: plan.frames });
    const facts = exportSound(plan);
    if (!facts) return { file, picture, sound: null };
    // Always this encoder, also where the browser has one: only its delay is known.
    registerAacEncoder();
    const end = secondsOf(plan.frames, plan.rate);
    const sound = new AudioSampleSource({
      codec: 'aac',
      quality: new Quality({ bitrate: AUDIO_BITS }),
      onEncodedPacket: (packet) => endAt(packet, end),
    });
    // An AAC packet holds 1024 samples; the encoder adds a few at the ends.
    const packets = Math.ceil((secondsOf(plan.frames, plan.rate) * facts.sampleRate) / 1024) + 8;
    file.output.addAudioTrack(sound, { maximumPacketCount: packets });
    return { file, picture, sound };
  },
};

/**
 * The encoder of an export's pictures: H.264 High at the lowest level that fits.
 * @throws TroubleError `encoder-missing` when this browser cannot encode the canvas.
 */
export async function pictureSource(
  plan: RenderPlan,
  videoBits: number,
  onEncodedPacket?: (packet: EncodedPacket) => void,
): Promise<VideoSampleSource> {
  return new VideoSampleSource({
    codec: 'avc',
    fullCodecString: await encoderFor(plan, videoBits),
    quality: new Quality({ bitrate: videoBits, bitrateMode: 'variable' }),
    latencyMode: 'quality',
    keyFrameInterval: KEY_FRAME_SECONDS,
    onEncoderConfig: (config) => Object.assign(config, PARAMETERS_IN_STREAM),
    ...(onEncodedPacket && { onEncodedPacket }),
  });
}

/** The codec string of the lowest level that fits. */
async function encoderFor(plan: RenderPlan, videoBits: number): Promise<string> {
  const { width, height } = plan;
  const codec = highProfileCodec(lowestLevel(plan, plan.rate, videoBits));
  const { supported } = await VideoEncoder.isConfigSupported({
    codec,
    width,
    height,
    bitrate: videoBits,
    framerate: rateValue(plan.rate),
  });
  if (!supported) throw new TroubleError('encoder-missing', { width, height });
  return codec;
}

/**
 * Packets hold 1024 samples: one that reaches past the end of the clip lasts until the end only, so that the track
 * and its edit end there (ISO/IEC 14496-12, 8.6.1.2 and 8.6.6).
 */
function endAt(packet: EncodedPacket, end: number): void {
  const past = packet.timestamp + packet.duration - end;
  if (past > 0) Object.assign(packet, { duration: Math.max(0, packet.duration - past) });
}
