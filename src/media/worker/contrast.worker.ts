import '@core/no-eval';
import { troubleOf } from '@core/trouble/trouble';
import { type ContrastRequest, type LookedContrast, measureContrast } from '../words/contrast-task';
import { serveTask } from './serve-task';

serveTask<ContrastRequest, LookedContrast | null>(measureContrast, (error) =>
  troubleOf(error, 'worker-ended', {}),
);
