import '@core/no-eval';
import { troubleOf } from '@core/trouble/trouble';
import { packFiles, type PackRequest } from '../archive/pack-task';
import { serveTask } from './serve-task';

serveTask<PackRequest, number>(packFiles, (error) => troubleOf(error, 'save-failed', {}));
