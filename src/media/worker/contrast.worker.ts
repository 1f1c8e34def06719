import '@core/no-eval';
import { troubleOf } from '@core/trouble/trouble';
import { type ContrastRequest, type LookedWords, measureContrast } from '../words/contrast-task';
import { serveTask } from './serve-task';

serveTask<ContrastRequest, LookedWords>(measureContrast, (error) => troubleOf(error, 'worker-ended', {}));
