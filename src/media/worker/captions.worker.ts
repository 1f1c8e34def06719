import '@core/no-eval';
import { readCaptions } from '@core/words/files/read-captions';
import { troubleOf } from '@core/trouble/trouble';
import { serveTask } from './serve-task';

serveTask(
  ({ bytes }: { bytes: Uint8Array }) => Promise.resolve(readCaptions(bytes)),
  (error) => troubleOf(error, 'worker-ended', {}),
);
