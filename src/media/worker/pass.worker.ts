import '@core/no-eval';
import { troubleOf } from '@core/trouble/trouble';
import type { Pass } from '@core/pass/pass';
import { passOver, type PassRequest } from '../pass/pass-task';
import { serveTask } from './serve-task';

serveTask<PassRequest, Pass>(passOver, (error, { source }) =>
  troubleOf(error, 'damaged', { file: source.fileName }),
);
