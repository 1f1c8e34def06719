import '@core/no-eval';
import { troubleOf } from '@core/trouble/trouble';
import { type EvidenceRequest, gatherEvidence } from '../follow/evidence-task';
import { serveTask } from './serve-task';

serveTask<EvidenceRequest, number>(gatherEvidence, (error, { source }) =>
  troubleOf(error, 'damaged', { file: source.fileName }),
);
