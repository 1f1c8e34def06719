import { canvasLabel } from '../job/canvases';
import { activeCanvas } from '../job/clip';
import { activeClip } from '../job/job';
import { targetOf } from '../outlets/outlets';
import { ratioLabel } from '../picture/size';
import type { StepKind } from './step';

export const canvasStep: StepKind = {
  title: 'Canvas',
  stand({ job }) {
    const clip = activeClip(job.edit);
    const canvas = activeCanvas(clip);
    const several = clip.canvases.length > 1;
    const summary = several
      ? `${clip.canvases.length} canvases: ${clip.canvases.map(canvasLabel).join(', ')}`
      : `${targetOf(canvas).label}, ${canvas.width}×${canvas.height}, ${ratioLabel(canvas)}`;
    return { summary, standing: 'pass' };
  },
};
