import type { Proof } from '@core/proof/proof-record';
import { type ReadBackRequest, readBack } from '../export/read-back-task';
import { serveTask } from './serve-task';

serveTask<ReadBackRequest, Proof>('export-failed', readBack, () => ({}));
