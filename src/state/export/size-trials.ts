import { useEffect, useMemo, useState } from 'react';
import { create } from 'zustand';
import { findAdvisedBitrate } from '@core/check/check';
import { sizeKey, sizeTrial, type TriedSize } from '@core/check/size-trial';
import type { CheckContext } from '@core/check/check-input';
import { activeClip, type Work } from '@core/job/job';
import { TroubleError } from '@core/trouble/trouble';
import { tryExportSizes } from '@media/worker/tasks';

/** A trial begins when nothing was changed for this long, in milliseconds. */
const CALM = 700;

/** Results of size trials, by the key of what the size depends on. */
export const useSizeTrials = create<Record<string, TriedSize>>(() => ({}));

/** Everything that was tried. */
export const listTriedSizes = (): TriedSize[] => Object.values(useSizeTrials.getState());

/**
 * Tries how large a clip will be, once its masters were looked at, and keeps what it found.
 * @param busy whether the processor is needed for something else.
 * @returns whether it is trying.
 */
export function useSizeTrial(work: Work, known: CheckContext, busy: boolean): boolean {
  const [trying, setTrying] = useState(false);
  const { sheets, passOf, advisedOf } = known;
  const advised = useMemo(() => findAdvisedBitrate(work, known), [work, known]);
  const key = useMemo(() => sizeKey(work, advised), [work, advised]);
  const tried = useSizeTrials((all) => all[key] !== undefined);
  useEffect(() => {
    if (tried || busy) return;
    const trial = sizeTrial(work, { sheets, passOf, advisedOf });
    if (!trial) return;
    const stop = new AbortController();
    const { plans, picture, bitsOf } = trial;
    const timer = setTimeout(() => {
      setTrying(true);
      tryExportSizes({ plans, picture }, { signal: stop.signal })
        .then(({ bytes }) => {
          const { id, canvas } = activeClip(work.edit);
          useSizeTrials.setState({ [key]: { clip: id, canvas, key, bits: bitsOf(bytes) } });
        })
        // What cannot be encoded is told by the export itself; the size stays the one by the bit rate.
        .catch((error: unknown) => {
          if (!(error instanceof TroubleError)) console.error('the size could not be tried', error);
        })
        .finally(() => {
          if (!stop.signal.aborted) setTrying(false);
        });
    }, CALM);
    return () => {
      clearTimeout(timer);
      stop.abort();
      setTrying(false);
    };
    // What the clip shows counts, not the object that says so.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [key, tried, busy, sheets, passOf]);
  return trying;
}
