import { sha256 } from '@noble/hashes/sha2.js';
import { bytesToHex, utf8ToBytes } from '@noble/hashes/utils.js';

/** Sixteen hex digits that stand for a value: the beginning of the SHA-256 (FIPS 180-4) of its JSON. */
export function shortHash(value: unknown): string {
  return bytesToHex(sha256(utf8ToBytes(JSON.stringify(value)))).slice(0, 16);
}
