import '@core/no-eval';
import { troubleOf } from '@core/trouble/trouble';
import { exportClips, type ExportRequest } from '../export/export-task';
import { serveTask } from './serve-task';

serveTask<ExportRequest, { bytes: number[] }>(exportClips, (error) => troubleOf(error, 'export-failed', {}));
