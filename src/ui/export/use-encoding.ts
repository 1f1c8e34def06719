import { useCallback } from 'react';
import { activeCanvas } from '@core/job/clip';
import { type Encoding, PLAIN_ENCODING } from '@core/rate/encoding';
import { dispatch } from '@state/job';
import { useClip, useJob } from '../job/job-context';

/** How the file of the canvas being worked on is made, and what changes it, on this canvas or on all. */
export function useEncoding(): {
  encoding: Encoding;
  change: (change: Partial<Encoding>) => void;
  put: (encoding: Encoding, canvases?: readonly string[]) => void;
} {
  const { id } = useJob();
  const canvas = activeCanvas(useClip());
  const encoding = canvas.encoding ?? PLAIN_ENCODING;
  const put = useCallback(
    (made: Encoding, canvases: readonly string[] = [canvas.id]) =>
      dispatch(id, { type: 'set-encoding', canvases: [...canvases], encoding: made }),
    [id, canvas.id],
  );
  return { encoding, put, change: (change) => put({ ...encoding, ...change }) };
}
