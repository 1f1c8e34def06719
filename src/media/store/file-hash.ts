import { sha256 } from '@noble/hashes/sha2.js';
import { bytesToHex } from '@noble/hashes/utils.js';

/**
 * SHA-256 of a file in hexadecimal, read piece by piece.
 * @param told gets the bytes that were read so far. @throws DOMException where the file cannot be read.
 */
export async function hashOfFile(
  file: Blob,
  told: (done: number) => void = () => undefined,
): Promise<string> {
  const hash = sha256.create();
  let done = 0;
  for await (const piece of file.stream()) {
    hash.update(piece);
    told((done += piece.byteLength));
  }
  return bytesToHex(hash.digest());
}
