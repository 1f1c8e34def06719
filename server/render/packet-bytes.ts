import { ALL_FORMATS, EncodedPacketSink, FilePathSource, Input } from 'mediabunny';

/** Bytes of all pictures of a file, without what its container takes. */
export const pictureBytes = async (file: string): Promise<number> =>
  (await bytesOfPictures(file)).reduce((sum, bytes) => sum + bytes, 0);

/** Bytes of each picture of a file, in the order of decoding. */
export async function bytesOfPictures(file: string): Promise<number[]> {
  const input = new Input({ source: new FilePathSource(file), formats: ALL_FORMATS });
  try {
    const track = await input.getPrimaryVideoTrack();
    if (!track) return [];
    const bytes: number[] = [];
    const packets = new EncodedPacketSink(track).packets(undefined, undefined, { metadataOnly: true });
    for await (const { byteLength } of packets) bytes.push(byteLength);
    return bytes;
  } finally {
    input.dispose();
  }
}
