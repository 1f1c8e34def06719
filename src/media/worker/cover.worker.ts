import '@core/no-eval';
import { troubleOf } from '@core/trouble/trouble';
import { type CoverRequest, makeCover } from '../export/cover-task';
import { serveTask } from './serve-task';

serveTask<CoverRequest, Blob>(makeCover, (error) => troubleOf(error, 'export-failed', {}));
