import '@core/no-eval';
import { troubleOf } from '@core/trouble/trouble';
import type { Proof } from '@core/proof/proof-record';
import { type ReadBackRequest, readBack } from '../export/read-back-task';
import { serveTask } from './serve-task';

serveTask<ReadBackRequest, Proof>(readBack, (error) => troubleOf(error, 'export-failed', {}));
