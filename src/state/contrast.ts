import { useEffect, useState } from 'react';
import type { RenderPlan } from '@core/render/plan';
import { framesToLookAt } from '@core/words/contrast-frames';
import type { LookedContrast } from '@media/words/contrast-task';
import { measureContrastOf } from '@media/worker/tasks';

/** How words stand out from what is behind them. */
export type ContrastState =
  { state: 'looking' } | { state: 'done'; worst: LookedContrast | null } | { state: 'failed' };

/** It is measured once nothing was changed for this long, in milliseconds. */
const CALM = 700;
/** Frames that are looked at: of few words these, of many words one of each, and not more than that. */
const FEW = 12;
const MOST = 40;

/** Measures words of a plan on the pixels behind them, whenever they change. @param text of the words that count. */
export function useContrast(plan: RenderPlan, isOwn: (text: string) => boolean, key: string): ContrastState {
  const [found, setFound] = useState<{ key: string; state: ContrastState } | null>(null);
  useEffect(() => {
    const stop = new AbortController();
    const own = plan.overlays.filter(({ art }) => art.text !== '' && isOwn(art.text));
    const frames = framesToLookAt(own, Math.min(MOST, Math.max(FEW, own.length)));
    const looks = frames.flatMap((frame) =>
      own.filter(({ from, to }) => frame >= from && frame < to).map(({ art }) => ({ frame, art })),
    );
    const timer = setTimeout(() => {
      measureContrastOf({ plan, looks: looks.slice(0, MOST) }, { signal: stop.signal })
        .then((worst) => setFound({ key, state: { state: 'done', worst } }))
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
