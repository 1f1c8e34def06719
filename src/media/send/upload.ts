import { type DetailedError, Upload } from 'tus-js-client';
import { isRandomId, type RandomId } from '@core/figures/random-id';
import { TroubleError } from '@core/trouble/trouble';
import type { FailedAction, HttpRefusal } from '@core/trouble/troubles';

/** Waits before each new try on a broken connection, in milliseconds. */
const RETRIES = [0, 500, 1000, 2000, 4000];
/** A piece small enough that a dropped connection costs little, in bytes. */
const PIECE_BYTES = 2 * 1024 * 1024;
/** A piece that is not taken within this time is sent again, in milliseconds. */
const PIECE_PATIENCE = 60_000;

/** Request to upload one file to a server. */
export interface UploadRequest {
  endpoint: string;
  /** The server as words call it, and what it is for. */
  who: string;
  errand: FailedAction;
  file: File;
  /** Same again for the same file, so that an upload goes on after a reload. */
  key: string;
}

const isDetailed = (error: Error | DetailedError): error is DetailedError => 'originalResponse' in error;

function toRefusal(status: number): HttpRefusal {
  if (status === 413) return 'too-large';
  if (status === 507) return 'no-room';
  return status === 503 ? 'busy' : 'fault';
}

/**
 * Sends a file by the open resumable-upload protocol (tus 1.0.0). A dropped connection is taken up where it broke,
 * also by a later call with the same key.
 * @returns the last part of the upload's address.
 * @throws TroubleError `server-down` when the retries are used up, `server-refused`, `server-answer`, or `cancelled`.
 */
export function uploadFile(
  { endpoint, who, errand, file, key }: UploadRequest,
  onProgress: (sent: number, total: number) => void,
  signal: AbortSignal,
): Promise<RandomId> {
  return new Promise((resolve, reject) => {
    const server = { who, errand };
    let ended = false;
    const end = (settle: () => void) => {
      if (ended) return;
      ended = true;
      clearTimeout(clock);
      signal.removeEventListener('abort', cancel);
      settle();
    };
    const fail = (error: TroubleError) =>
      end(() => {
        void upload.abort();
        reject(error);
      });
    const cancel = () => fail(new TroubleError('cancelled'));
    let clock = setTimeout(() => undefined);
    const wait = () => {
      clearTimeout(clock);
      clock = setTimeout(() => fail(new TroubleError('server-down', server)), PIECE_PATIENCE);
    };
    const upload = new Upload(file, {
      endpoint,
      retryDelays: RETRIES,
      chunkSize: PIECE_BYTES,
      removeFingerprintOnSuccess: true,
      metadata: { filename: file.name, filetype: 'video/mp4' },
      fingerprint: () => Promise.resolve(`gusset-upload-${key}`),
      onProgress(sent, total) {
        wait();
        onProgress(sent, total ?? file.size);
      },
      onUploadUrlAvailable() {
        // An address elsewhere is not one to send a film to.
        if (!sameOrigin(upload.url)) fail(new TroubleError('server-answer', server));
      },
      onError(error) {
        const response = isDetailed(error) ? error.originalResponse : null;
        const why = response ? toRefusal(response.getStatus()) : null;
        fail(
          why
            ? new TroubleError('server-refused', { ...server, why })
            : new TroubleError('server-down', server),
        );
      },
      onSuccess() {
        const id = upload.url?.split('/').pop() ?? '';
        if (isRandomId(id) && sameOrigin(upload.url)) end(() => resolve(id));
        else fail(new TroubleError('server-answer', server));
      },
    });
    signal.addEventListener('abort', cancel);
    if (signal.aborted) return cancel();
    wait();
    const begin = async () => {
      const [earlier] = await upload.findPreviousUploads();
      if (ended) return;
      if (earlier && sameOrigin(earlier.uploadUrl)) upload.resumeFromPreviousUpload(earlier);
      upload.start();
    };
    begin().catch(() => fail(new TroubleError('server-down', server)));
  });
}

const sameOrigin = (address: string | null): boolean =>
  address !== null && new URL(address, location.href).origin === location.origin;
