import '@core/no-eval';
import { troubleOf } from '@core/trouble/trouble';
import { findSpeech, type SpeechRequest } from '../speech/speech-task';
import type { Speech } from '@core/speech/speech';
import { serveTask } from './serve-task';

serveTask<SpeechRequest, Speech['spans']>(findSpeech, (error, { source }) =>
  troubleOf(error, 'damaged', { file: source.fileName }),
);
