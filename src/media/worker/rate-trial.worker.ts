import '@core/no-eval';
import { troubleOf } from '@core/trouble/trouble';
import { type RateTrialRequest, type RateTried, tryRates } from '../trial/rate-trial-task';
import { serveTask } from './serve-task';

serveTask<RateTrialRequest, RateTried>(tryRates, (error) => troubleOf(error, 'export-failed', {}));
