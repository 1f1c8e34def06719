import '@core/no-eval';
import { troubleOf } from '@core/trouble/trouble';
import { lookAtReturned, type ReturnedRequest, type ReturnedResult } from '../returned/returned-task';
import { serveTask } from './serve-task';

serveTask<ReturnedRequest, ReturnedResult>(lookAtReturned, (error, { file }) =>
  troubleOf(error, 'damaged', { file: file.name }),
);
