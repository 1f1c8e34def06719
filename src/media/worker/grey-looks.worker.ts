import '@core/no-eval';
import { troubleOf } from '@core/trouble/trouble';
import { type GreyRequest, lookAtGreys } from '../pass/grey-looks';
import { serveTask } from './serve-task';

serveTask<GreyRequest, unknown>(lookAtGreys, (error) => troubleOf(error, 'worker-ended', {}));
