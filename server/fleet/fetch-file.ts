import { Readable } from 'node:stream';
import type { ReadableStream } from 'node:stream/web';

/** Streams the file at an address. @throws Error where it is refused. */
export async function fetchStream(address: string): Promise<Readable> {
  const { ok, status, body } = await fetch(address);
  if (!ok || !body) throw new Error(`a file was refused with ${status}`);
  return Readable.fromWeb(body as ReadableStream);
}
