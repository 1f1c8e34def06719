import { bitsLabel, bytesLabel } from '@core/check/words';
import { codecName, type Master, videoCodecName } from '@core/job/master';
import { ratioLabel } from '@core/picture/size';
import { rateLabel } from '@core/time/frame-rate';
import { formatTimecode } from '@core/time/timecode';

const channelWords = (channels: number): string =>
  channels === 1 ? 'mono' : channels === 2 ? 'stereo' : `${channels} channels`;

/** A master's facts for people, each with its name. */
export function factsOf(master: Master): { name: string; value: string }[] {
  const { picture, rate, audio, video } = master;
  const turned = master.rotation === 0 ? '' : `, turned ${master.rotation}°`;
  return [
    { name: 'Size', value: `${picture.width}×${picture.height}${turned}` },
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
