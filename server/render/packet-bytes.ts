import { EncodedPacketSink, type Input, type InputTrack } from 'mediabunny';
import { sum } from '../../src/core/figures/sum';
import { openMedia } from '../../src/render/open-media';

/** Bytes of all pictures of a file, without what its container takes. */
export const pictureBytes = async (file: string): Promise<number> => sum(await listPacketBytes(file));

/** Bytes of the sound of a file, without what its container takes. */
export const soundBytes = async (file: string): Promise<number> =>
  sum(await countBytes(file, (input) => input.getPrimaryAudioTrack()));

/** Bytes of each picture of a file, in the order of decoding. */
export const listPacketBytes = (file: string): Promise<number[]> =>
  countBytes(file, (input) => input.getPrimaryVideoTrack());

async function countBytes(
  file: string,
  trackOf: (input: Input) => Promise<InputTrack | null>,
): Promise<number[]> {
  const input = openMedia(file);
  try {
    const track = await trackOf(input);
    if (!track) return [];
    const bytes: number[] = [];
    const packets = new EncodedPacketSink(track).packets(undefined, undefined, { metadataOnly: true });
    for await (const { byteLength } of packets) bytes.push(byteLength);
    return bytes;
  } finally {
    input.dispose();
  }
}
