import '@core/no-eval';
import { troubleOf } from '@core/trouble/trouble';
import { bringIn, type BringInRequest, type BroughtIn } from '../read/bring-in-task';
import { serveTask } from './serve-task';

serveTask<BringInRequest, BroughtIn>(bringIn, (error, { file }) =>
  troubleOf(error, 'bring-in-failed', { file: file.name }),
);
