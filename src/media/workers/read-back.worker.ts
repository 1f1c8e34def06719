import type { Proof } from '@core/job/records';
import { type ReadBackRequest, readBack } from '../read-back-task';
import { serveTask } from '../serve-task';

serveTask<ReadBackRequest, Proof>('export-failed', readBack, () => ({}));
