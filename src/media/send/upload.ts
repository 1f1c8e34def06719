import { Upload } from 'tus-js-client';
import { TroubleError } from '@core/trouble/trouble';

/** Waits before each new try on a broken connection, in milliseconds. */
const RETRIES = [0, 500, 1000, 2000, 4000];
/** A piece small enough that a dropped connection costs little, in bytes. */
const PIECE_BYTES = 2 * 1024 * 1024;

/** One file on its way to an outlet. */
export interface UploadRequest {
  endpoint: string;
  /** The outlet's name, for words. */
  outlet: string;
  file: File;
  /** Same again for the same export, so that an upload goes on after a reload. */
  key: string;
}

/**
 * Sends a file by the open resumable-upload protocol (tus 1.0.0). A dropped connection is taken up where it broke,
 * also by a later call with the same key.
 * @returns the last part of the upload's address.
 * @throws TroubleError `server-down` when the retries are used up, or `cancelled`.
 */
export function uploadFile(
  { endpoint, outlet, file, key }: UploadRequest,
  onProgress: (sent: number, total: number) => void,
  signal: AbortSignal,
): Promise<string> {
  return new Promise((resolve, reject) => {
    const upload = new Upload(file, {
      endpoint,
      retryDelays: RETRIES,
      chunkSize: PIECE_BYTES,
      removeFingerprintOnSuccess: true,
      metadata: { filename: file.name, filetype: 'video/mp4' },
      fingerprint: () => Promise.resolve(`gusset-upload-${key}`),
      onProgress,
      onError: (error) => {
        const detail = error.message;
        const answered = 'originalResponse' in error && error.originalResponse !== null;
        reject(new TroubleError(answered ? 'post-failed' : 'server-down', { outlet, detail }));
      },
      onSuccess: () => resolve(upload.url?.split('/').pop() ?? ''),
    });
    signal.addEventListener('abort', () => {
      void upload.abort();
      reject(new TroubleError('cancelled'));
    });
    const begin = async () => {
      const [earlier] = await upload.findPreviousUploads();
      if (earlier) upload.resumeFromPreviousUpload(earlier);
      upload.start();
    };
    begin().catch(reject);
  });
}
