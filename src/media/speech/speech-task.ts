import type { Source } from '@core/master/source';
import { type Speech, SpokenSpans, VOICE } from '@core/speech/speech';
import { rateValue, countSamplesBefore } from '@core/time/frame-rate';
import { waitWhilePlaying } from '../play/playing-lock';
import { MasterReader } from '../read/master-reader';
import { readSound } from '@render/master-sound';
import { Pieces } from '@render/sound-pieces';
import { throwIfStopped, type TaskContext } from '../worker/serve-task';
import type { Progress } from '../worker/worker-protocol';
import { VoiceNet } from './voice-net';

/** A master whose sound is listened to for speech. */
export interface SpeechRequest {
  /** As its file says it is: frames count at its own rate. */
  source: Source;
}

/** Steps between two reports: about a second. */
const REPORT_EVERY = 32;

/**
 * Listens to a master for speech; tells how many of its frames were heard.
 * @returns where somebody speaks; nothing where there is no sound. @throws TroubleError `master-gone`, `cancelled`.
 */
export async function findSpeech({ source }: SpeechRequest, context: TaskContext): Promise<Speech['spans']> {
  const spans = new SpokenSpans();
  const reader = await MasterReader.open(source);
  try {
    if (!source.audio) return [];
    const net = await VoiceNet.open();
    const length = countSamplesBefore(source.frames, source.rate, VOICE.rate);
    const sound = new Pieces(readSound(reader, 0, length, { sampleRate: VOICE.rate, channels: 1 }));
    for (let count = 0; count * VOICE.step < length; count++) {
      throwIfStopped(context.signal);
      const [step] = await sound.take(VOICE.step);
      // The sound may end before the picture does; of the last step a part is missing.
      if (!step?.length) break;
      const whole = new Float32Array(VOICE.step);
      whole.set(step);
      spans.push(await net.likely(whole));
      if (count % REPORT_EVERY !== 0) continue;
      const seconds = (count * VOICE.step) / VOICE.rate;
      const done = Math.min(source.frames, Math.floor(seconds * rateValue(source.rate)));
      context.report({ stage: 'speech', done, total: source.frames } satisfies Progress);
      await waitWhilePlaying();
    }
    await sound.close();
    await net.close();
    return spans.finish();
  } finally {
    reader.close();
  }
}
