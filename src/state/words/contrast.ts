import { useEffect, useState } from 'react';
import type { RenderPlan } from '@core/render/plan';
import type { LookedWords } from '@media/words/contrast-task';
import { measureContrast } from '@media/worker/tasks';

/** How words stand out from what is behind them, and whether they have room. */
export type ContrastState =
  { state: 'looking' } | { state: 'done'; looked: LookedWords } | { state: 'failed' };

/** It is measured once nothing was changed for this long, in milliseconds. */
const CALM = 700;

/**
 * Measures words of a plan on the pixels behind them, whenever they change.
 * @param isOwn whether words of this text count. @param key of these words and of what is behind them.
 */
export function useContrast(plan: RenderPlan, isOwn: (text: string) => boolean, key: string): ContrastState {
  const [found, setFound] = useState<{ key: string; state: ContrastState } | null>(null);
  useEffect(() => {
    const stop = new AbortController();
    const own = plan.overlays.filter(({ art }) => art.text !== '' && isOwn(art.text));
    const timer = setTimeout(() => {
      measureContrast({ plan, own }, { signal: stop.signal })
        .then((looked) => setFound({ key, state: { state: 'done', looked } }))
        .catch(() => !stop.signal.aborted && setFound({ key, state: { state: 'failed' } }));
    }, CALM);
    return () => {
      clearTimeout(timer);
      stop.abort();
    };
    // The key stands for the words and for what is behind them.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [key]);
  return found?.key === key ? found.state : { state: 'looking' };
}
