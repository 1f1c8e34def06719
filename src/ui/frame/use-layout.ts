import { activeCanvas } from '@core/job/clip';
import { changeCanvas } from '@core/job/canvases';
import type { Layout } from '@core/layout/layout';
import { dispatch } from '@state/job';
import { useClip, useJob } from '../job/job-context';

/** Changes the layout of the canvas being worked on; steps with the same word right after each other are one. */
export function useLayout(): (change: Partial<Layout>, joins?: string) => void {
  const { id } = useJob();
  const clip = useClip();
  const canvas = activeCanvas(clip);
  return (change, joins) =>
    dispatch(
      id,
      {
        type: 'set-canvases',
        act: 'layout',
        ...changeCanvas(clip, canvas.id, { layout: { ...canvas.layout, ...change } }),
      },
      joins,
    );
}
