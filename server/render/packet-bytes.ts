import { ALL_FORMATS, EncodedPacketSink, FilePathSource, Input } from 'mediabunny';

/** Bytes of the pictures of a file, without what its container takes. */
export async function pictureBytes(file: string): Promise<number> {
  const input = new Input({ source: new FilePathSource(file), formats: ALL_FORMATS });
  try {
    const track = await input.getPrimaryVideoTrack();
    if (!track) return 0;
    let bytes = 0;
    const packets = new EncodedPacketSink(track).packets(undefined, undefined, { metadataOnly: true });
    for await (const { byteLength } of packets) bytes += byteLength;
    return bytes;
  } finally {
    input.dispose();
  }
}
