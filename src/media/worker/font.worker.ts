import '@core/no-eval';
import { troubleOf } from '@core/trouble/trouble';
import { keepFont, type OwnFont } from '../words/check-font';
import { serveTask } from './serve-task';

serveTask<{ file: File }, OwnFont>(keepFont, (error, { file }) =>
  troubleOf(error, 'not-font', { file: file.name }),
);
