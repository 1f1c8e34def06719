import '@core/no-eval';
import { troubleOf } from '@core/trouble/trouble';
import { type Unpacked, unpackJob, type UnpackRequest } from '../archive/unpack-task';
import { serveTask } from './serve-task';

serveTask<UnpackRequest, Unpacked>(unpackJob, (error, { file }) =>
  troubleOf(error, 'job-file', { file: file.name }),
);
