/** Plain decoding of a stored master: what the pass over it is measured against. */
import { VideoSampleSink } from 'mediabunny';
import { openMedia } from '../src/render/open-media';
import { storedFile } from '../src/media/store/storage';

self.onmessage = async ({ data }: MessageEvent<string>) => {
  const file = await storedFile('masters', data);
  if (!file) throw new Error('the master is not stored');
  const input = openMedia(file);
  const video = await input.getPrimaryVideoTrack();
  if (!video) throw new Error('the master has no picture');
  let frames = 0;
  for await (const sample of new VideoSampleSink(video).samples()) {
    sample.close();
    frames += 1;
  }
  input.dispose();
  self.postMessage(frames);
};
