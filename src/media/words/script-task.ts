import { layScript, type LaidScript, type ScriptRequest } from '@core/words/script';
import type { TaskContext } from '../worker/serve-task';

/** Lays a script on speech. */
export const layScriptOnSpeech = (request: ScriptRequest, { report }: TaskContext): LaidScript =>
  layScript(request, (done, total) => report({ stage: 'script', done, total }));
