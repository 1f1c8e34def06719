import '@core/no-eval';
import { troubleOf } from '@core/trouble/trouble';
import { serveTask } from './serve-task';
import { makeStills, type StillsRequest } from '../play/stills-task';

serveTask<StillsRequest, number>(makeStills, (error, { source }) =>
  troubleOf(error, 'damaged', { file: source.fileName }),
);
