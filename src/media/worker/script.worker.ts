import '@core/no-eval';
import { troubleOf } from '@core/trouble/trouble';
import { laidScript, type LaidScript, type ScriptRequest } from '@core/words/script';
import { serveTask } from './serve-task';

serveTask<ScriptRequest, LaidScript>(
  (request, { report }) =>
    Promise.resolve(laidScript(request, (done, total) => report({ stage: 'script', done, total }))),
  (error) => troubleOf(error, 'worker-ended', {}),
);
