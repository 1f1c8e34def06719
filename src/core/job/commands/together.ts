import { z } from 'zod';
import { activeClip, type Edit, onCanvas, onClip } from '../job';
import { listActs, command } from './command';

const ACTS = { fixes: 'apply the fixes' };

/** A change of one canvas of one clip. The command is one that was made here: it is not read from anywhere. */
export interface CommandStep {
  clip: string;
  canvas: string;
  command: { type: string };
}
const stepSchema = z.object({
  clip: z.string(),
  canvas: z.string(),
  command: z.looseObject({ type: z.string() }),
}) as unknown as z.ZodType<CommandStep>;

/** Several changes, on whatever canvas of whatever clip, as one step; what is worked on stays. */
export const mergeCommands = (apply: (edit: Edit, command: CommandStep['command']) => Edit) => ({
  together: command({
    schema: z.object({ act: z.enum(listActs(ACTS)), steps: z.array(stepSchema).min(1) }),
    label: ACTS,
    apply: (edit, { steps }) => steps.reduce((now, step) => applyStep(now, step, apply), edit),
  }),
});

function applyStep(
  edit: Edit,
  { clip, canvas, command: made }: CommandStep,
  apply: (edit: Edit, command: CommandStep['command']) => Edit,
): Edit {
  const there = onClip({ masters: [], edit }, clip);
  const shown = activeClip(there.edit).canvas;
  const changed = apply(onCanvas(there, canvas).edit, made);
  return { ...onCanvas({ masters: [], edit: changed }, shown).edit, clip: edit.clip };
}
