import { createReadStream } from 'node:fs';
import { DetailedError, Upload } from 'tus-js-client';
import { toRefusal } from './http-connection';
import { OutletClientError, type Shipment, type ShipmentNews } from './outlet-connection';

/** A piece small enough that a dropped connection costs little, in bytes. */
const PIECE_BYTES = 1024 * 1024;
/** A piece that is not taken within this time has broken off, in milliseconds. */
const PATIENCE = 60_000;

/**
 * Sends a file by the open resumable-upload protocol (tus 1.0.0), from where an earlier try ended; it is tried once.
 * @param door where uploads are begun. @returns the last part of the upload's address. @throws OutletClientError
 */
export function sendByTus(
  door: string,
  token: string,
  { file, bytes, address }: Shipment,
  news: ShipmentNews,
  signal: AbortSignal,
): Promise<string> {
  return new Promise((resolve, reject) => {
    let clock: ReturnType<typeof setTimeout> | undefined;
    const end = (settle: () => void) => {
      clearTimeout(clock);
      signal.removeEventListener('abort', stop);
      settle();
    };
    const fail = (error: Error) => {
      void upload.abort().catch(() => undefined);
      end(() => reject(error));
    };
    const stop = () => fail(new OutletClientError('down', 'the upload was stopped'));
    const wait = () => {
      clearTimeout(clock);
      clock = setTimeout(() => fail(new OutletClientError('down', 'the line is silent')), PATIENCE);
    };
    const upload = new Upload(createReadStream(file), {
      endpoint: door,
      uploadUrl: address,
      uploadSize: bytes,
      chunkSize: PIECE_BYTES,
      headers: { authorization: `Bearer ${token}` },
      // When it is tried again is decided by who sends it.
      retryDelays: [],
      onUploadUrlAvailable() {
        // The token and the film go to no other host.
        if (upload.url && new URL(upload.url, door).origin === new URL(door).origin) news.began(upload.url);
        else fail(new OutletClientError('answer', 'the upload’s address is elsewhere'));
      },
      onProgress(sent) {
        wait();
        news.sent(sent);
      },
      onError(error) {
        const response = error instanceof DetailedError ? error.originalResponse : null;
        fail(
          response
            ? toRefusal(response.getStatus(), response.getBody(), response.getHeader('retry-after') ?? null)
            : new OutletClientError('down', error.message),
        );
      },
      onSuccess() {
        const id = upload.url?.split('/').pop() ?? '';
        end(() => resolve(id));
      },
    });
    if (signal.aborted) return stop();
    signal.addEventListener('abort', stop);
    wait();
    upload.start();
  });
}
