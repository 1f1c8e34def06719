import '@core/no-eval';
import { troubleOf } from '@core/trouble/trouble';
import { packJob, type PackRequest } from '../archive/pack-task';
import { serveTask } from './serve-task';

serveTask<PackRequest, number>(packJob, (error) => troubleOf(error, 'save-failed', {}));
