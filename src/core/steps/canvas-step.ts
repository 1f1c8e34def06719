import { activeCanvas } from '../job/clip';
import { activeClip } from '../job/job';
import { canvasLabel } from '../outlets/outlets';
import { ratioLabel } from '../picture/size';
import type { StepKind } from './step';

export const canvasStep: StepKind = {
  title: 'Canvas',
  stand({ job, sheets }) {
    const clip = activeClip(job.edit);
    const canvas = activeCanvas(clip);
    const several = clip.canvases.length > 1;
    const summary = several
      ? `${clip.canvases.length} canvases: ${clip.canvases.map((canvas) => canvasLabel(sheets, canvas)).join(', ')}`
      : `${canvasLabel(sheets, canvas)}, ${canvas.width}×${canvas.height}, ${ratioLabel(canvas)}`;
    return { summary, standing: 'pass' };
  },
};
