import { bitsLabel, bytesLabel } from '@core/figures/figures';
import { MATRIX_NAMES } from '@core/diagnosis/diagnosis';
import { channelWords, codecName, type Master, videoCodecName } from '@core/master/master';
import { ratioLabel } from '@core/picture/size';
import { rateLabel } from '@core/time/frame-rate';
import { formatTimecode } from '@core/time/timecode';

/** A master's facts for people, each with its name. */
export function toMasterFacts(master: Master): { name: string; value: string }[] {
  const { picture, rate, audio, video } = master;
  return [
    { name: 'Size', value: `${picture.width}×${picture.height}` },
    {
      name: 'Ratio',
      value: ratioLabel({ width: Math.round(picture.width), height: Math.round(picture.height) }),
    },
    { name: 'Frame rate', value: `${rateLabel(rate)} fps${master.constantRate ? '' : ', varies'}` },
    { name: 'Length', value: formatTimecode(master.frames, rate) },
    { name: 'Picture', value: videoCodecName(video.codec, video.codecString) },
    { name: 'Bit rate', value: bitsLabel(video.bits + (audio?.bits ?? 0)) },
    {
      name: 'Sound',
      value: audio
        ? `${codecName(audio.codec)} ${audio.sampleRate / 1000} kHz ${channelWords(audio.channels)}`
        : 'none',
    },
    { name: 'File', value: `${master.container}, ${bytesLabel(master.bytes)}` },
  ];
}

/** Everything that is known of a master, each with its name. */
export function toAllMasterFacts(master: Master): { name: string; value: string }[] {
  const { video, colour, pixelAspect, frameTimes, audioTracks } = master;
  const milliseconds = (seconds: number) => `${Number((seconds * 1000).toFixed(2))}`;
  const { least, mean, greatest } = frameTimes;
  const name = (value: string | null) => (value === null ? 'not stated' : (MATRIX_NAMES[value] ?? value));
  const levels = colour.fullRange === null ? 'not stated' : colour.fullRange ? 'full' : 'limited';
  return [
    ...toMasterFacts(master),
    { name: 'Pixel aspect', value: `${pixelAspect.num}:${pixelAspect.den}` },
    { name: 'Turned', value: `${master.rotation}°${master.flip ? ', mirrored' : ''}` },
    {
      name: 'Frame time',
      value: master.constantRate
        ? `${milliseconds(mean)} ms, always`
        : `${milliseconds(least)} to ${milliseconds(greatest)} ms, mean ${milliseconds(mean)} ms`,
    },
    { name: 'Bit depth', value: video.depth === null ? 'not stated' : `${video.depth} bits` },
    {
      name: 'Fields',
      value:
        video.interlaced === null ? 'not stated' : video.interlaced ? 'the stream may hold fields' : 'none',
    },
    { name: 'Levels', value: levels },
    {
      name: 'Colour',
      value: `matrix ${name(colour.matrix)}, primaries ${name(colour.primaries)}, transfer ${name(colour.transfer)}`,
    },
    ...(audioTracks.length > 1
      ? [
          {
            name: 'Sound tracks',
            value: `${audioTracks.length}: ${audioTracks.map(({ codec, sampleRate, channels }) => `${codecName(codec)} ${sampleRate / 1000} kHz ${channelWords(channels)}`).join(', ')}`,
          },
        ]
      : []),
  ];
}
