import { codecString } from '@core/rate/codec-string';
import type { RateKind } from '@core/rate/encoding';
import { type Format, FORMAT_IDS, FORMATS } from '@core/rate/format';
import type { EncoderAbilities } from '@core/rate/server-abilities';
import { findLevel } from '@core/rate/level';
import type { Size } from '@core/picture/size';
import { type FrameRate, rateValue } from '@core/time/frame-rate';
import { PARAMETERS_IN_STREAM } from '../store/avc-stream';

/** A bit rate that every encoder takes. */
const TRIED_BITS = 5_000_000;

/** Finds what this browser's encoders can really make of a canvas, by asking each. */
export async function browserAbilities(size: Size, rate: FrameRate): Promise<EncoderAbilities> {
  const found = await Promise.all(
    FORMAT_IDS.map(async (id) => [id, await listKinds(FORMATS[id], size, rate)] as const),
  );
  return Object.fromEntries(found.filter(([, kinds]) => kinds.length > 0));
}

async function listKinds({ video, audio }: Format, size: Size, rate: FrameRate): Promise<RateKind[]> {
  if (audio === 'opus' && !(await encodesOpus())) return [];
  if (video === null) return ['worked-out'];
  const can = async (bitrateMode: VideoEncoderBitrateMode): Promise<boolean> => {
    const level = findLevel(size, rate, TRIED_BITS);
    if (video === 'avc' && level === null) return false;
    const { supported } = await VideoEncoder.isConfigSupported({
      codec: codecString({ codec: video, profile: 'high', level }, size, rate),
      ...{ width: size.width, height: size.height, framerate: rateValue(rate), bitrateMode },
      ...(bitrateMode !== 'quantizer' && { bitrate: TRIED_BITS }),
      ...(video === 'avc' && PARAMETERS_IN_STREAM),
    }).catch(() => ({ supported: false }));
    return supported === true;
  };
  if (!(await can('variable'))) return [];
  return [
    ...(['worked-out', 'variable'] as const),
    // What falls short of a constant rate is filled up, which H.264 alone has a way for.
    ...(video === 'avc' ? (['constant'] as const) : []),
    ...((await can('quantizer')) ? (['quality'] as const) : []),
    'size',
  ];
}

async function encodesOpus(): Promise<boolean> {
  const { supported } = await AudioEncoder.isConfigSupported({
    ...{ codec: 'opus', sampleRate: 48_000, numberOfChannels: 2, bitrate: 128_000 },
  }).catch(() => ({ supported: false }));
  return supported === true;
}
