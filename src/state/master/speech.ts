import { create } from 'zustand';
import type { Master } from '@core/master/master';
import { toSource } from '@core/master/source';
import { passNames } from '@core/pass/pass';
import { type Speech, speechSchema } from '@core/speech/speech';
import { type Trouble, toTrouble, TroubleError } from '@core/trouble/trouble';
import { storedFile, writeSmall } from '@media/store/storage';
import { findSpeech } from '@media/worker/tasks';
import { keepLock } from '../store';
import { TaskQueue } from '../task';

/** Where the search for speech in a master stands. */
export type SpeechState =
  | { state: 'running'; done: number; total: number }
  | { state: 'done'; speech: Speech }
  | { state: 'stopped' }
  | { state: 'failed'; trouble: Trouble };

/** By fingerprint. */
export const useSpeech = create<Record<string, SpeechState>>(() => ({}));

/** Selects the speech in the track that a master uses, or null before it was searched. */
export const selectSpeech = (
  state: SpeechState | undefined,
  { soundTrack }: Pick<Master, 'soundTrack'>,
): Speech | null => (state?.state === 'done' && state.speech.soundTrack === soundTrack ? state.speech : null);

const queue = new TaskQueue();

const putState = (fingerprint: string, state: SpeechState): void =>
  useSpeech.setState({ [fingerprint]: state });

/** Sees to it that a master was listened to: what was found earlier is read, else it is searched for speech. */
export function ensureSpeech(master: Master): void {
  const known = useSpeech.getState()[master.fingerprint];
  if (!known || (known.state === 'done' && !selectSpeech(known, master))) seekSpeech(master);
}

export function stopSpeech(fingerprint: string): void {
  queue.cancel(fingerprint);
}

/** Searches a master for speech, also after that failed or was stopped. */
export function seekSpeech(master: Master): void {
  const { fingerprint, fileName, frames, soundTrack } = master;
  if (soundTrack === null) return;
  const onProgress = (progress: { done: number; total: number }) =>
    putState(fingerprint, { state: 'running', ...progress });
  onProgress({ done: 0, total: frames });
  const running = queue.add(fingerprint, {
    async run(signal) {
      // Another tab may listen to the same master: then what it finds is taken.
      const lock = await keepLock(`gusset/speech/${fingerprint}`, 'wait', signal);
      if (!lock) throw new TroubleError('cancelled');
      try {
        const stored = await storedSpeech(master);
        if (stored) return stored;
        const spans = await findSpeech({ source: toSource(master) }, { signal, onProgress });
        const speech: Speech = { schemaVersion: 1, fingerprint, soundTrack, spans };
        await writeSmall('passes', passNames(fingerprint).speech, new Blob([JSON.stringify(speech)]));
        return speech;
      } finally {
        lock.release();
      }
    },
    clean: () => Promise.resolve(),
    trouble: (error) => toTrouble(error, 'damaged', { file: fileName }),
  });
  void running.then((outcome) => {
    // Forgotten meanwhile, or begun again: nothing is left to be said of this one.
    if (useSpeech.getState()[fingerprint] === undefined || queue.has(fingerprint)) return;
    if (outcome.state === 'done') putState(fingerprint, { state: 'done', speech: outcome.result });
    else if (outcome.state === 'failed') putState(fingerprint, { state: 'failed', trouble: outcome.trouble });
    else putState(fingerprint, { state: 'stopped' });
  });
}

/**
 * Reads the speech that an earlier visit found; what cannot be read, or was heard in another track, is
 * searched again.
 */
async function storedSpeech({ fingerprint, soundTrack }: Master): Promise<Speech | null> {
  const file = await storedFile('passes', passNames(fingerprint).speech);
  if (!file) return null;
  try {
    const speech = speechSchema.parse(JSON.parse(await file.text()));
    return speech.soundTrack === soundTrack ? speech : null;
  } catch {
    return null;
  }
}

/** Forgets what is known of a master that is deleted. Resolves when nothing more is written of it. */
export async function forgetSpeech(fingerprint: string): Promise<void> {
  const ended = queue.cancelled(fingerprint);
  useSpeech.setState((all) => {
    const { [fingerprint]: _gone, ...rest } = all;
    return rest;
  }, true);
  await ended;
}
