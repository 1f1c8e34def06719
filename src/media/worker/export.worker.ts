import { exportClips, type ExportRequest } from '../export/export-task';
import { serveTask } from './serve-task';

serveTask<ExportRequest, { bytes: number[] }>('export-failed', exportClips, () => ({}));
