import '@core/no-eval';
import { troubleOf } from '@core/trouble/trouble';
import { type SizeTrialRequest, trySizes } from '../export/size-trial-task';
import { serveTask } from './serve-task';

serveTask<SizeTrialRequest, { bytes: number[] }>(trySizes, (error) => troubleOf(error, 'export-failed', {}));
