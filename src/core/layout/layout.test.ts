import { z } from 'zod';
import type * as CommandsModule from '../job/commands/commands';
import { EMPTY_HISTORY } from '../job/history';
import type * as JobModule from '../job/job';
import type * as StoredModule from '../job/stored-job';
import type * as TestJobModule from '../job/test-job';
import type * as PlanModule from '../render/plan';
import type { LayoutKindDescriptor } from './kinds/layout-kind';
import type * as LayoutModule from './layout';
import { wholePane } from './pane';

/** A picture over the upper part of the canvas, over a ground of its own: a kind that nobody had thought of. */
const shelf: LayoutKindDescriptor<{ share: number; ground: string }> = {
  label: 'Shelf',
  schema: z.object({ share: z.number().min(0.1).max(0.9), ground: z.string() }),
  plain: { share: 0.5, ground: '#102030' },
  panes: ({ share }, size) => {
    const whole = wholePane(size);
    return [{ ...whole, rect: { ...whole.rect, height: Math.round((share * size.height) / 2) * 2 } }];
  },
  dividers: {
    places: ({ share }) => [share],
    move: (settings, _, to) => ({ ...settings, share: Math.min(0.9, Math.max(0.1, to)) }),
  },
  ground: ({ ground }) => ground,
  fields: ({ share, ...rest }) => [
    {
      ...{ type: 'number', label: 'Height', unit: '', value: share, min: 0.1, max: 0.9 },
      withValue: (value) => ({ ...rest, share: value }),
    },
  ],
};

/** Looks at everything with that kind in the place of a line of the registry. */
function withAnotherKind(look: () => void): void {
  jest.isolateModules(() => {
    jest.doMock('./kinds/turned', () => ({ turned: shelf }));
    look();
    jest.dontMock('./kinds/turned');
  });
}

describe('a layout that is a file and a line', () => {
  it('is in the interface, the commands, the plan and the store', () => {
    withAnotherKind(() => {
      const { chosenLayout, layoutLabel, LAYOUTS } = jest.requireActual<typeof LayoutModule>('./layout');
      expect(LAYOUTS.map(layoutLabel)).toContain('Shelf');
      const chosen = chosenLayout({ kind: 'turned' });
      expect([chosen.dividers, chosen.ground]).toEqual([[0.5], '#102030']);
      expect(chosen.fields).toEqual([expect.objectContaining({ label: 'Height', value: 0.5 })]);
      // A divider that is moved, and a figure that is typed, are the same change.
      const moved = chosen.withDivider(0, 0.25);
      const [field] = chosen.fields;
      expect(field?.type === 'number' && field.withValue(0.25)).toEqual(moved);

      const { testJob } = jest.requireActual<typeof TestJobModule>('../job/test-job');
      const { activeClip, listSources } = jest.requireActual<typeof JobModule>('../job/job');
      const { applyCommand } = jest.requireActual<typeof CommandsModule>('../job/commands/commands');
      const job = testJob();
      const [canvas] = activeClip(job.edit).canvases;
      const set = (layout: object) =>
        applyCommand(job.edit, {
          ...{ type: 'set-canvases', act: 'layout' },
          canvases: [{ ...canvas!, layout: { kind: 'turned', ...layout } }],
          canvas: canvas!.id,
        } as Parameters<typeof applyCommand>[1]);
      const edit = set(moved);
      expect(() => set({ turned: { share: 5 } })).toThrow();

      const { createRenderPlan } = jest.requireActual<typeof PlanModule>('../render/plan');
      const { canvases, cut } = activeClip(edit);
      const plan = createRenderPlan(canvases[0]!, { ...edit, cut, sources: listSources({ ...job, edit }) });
      expect(plan.segments[0]?.panes.map(({ picture }) => picture.height)).toEqual([480]);

      const { readStoredJob, storedJob } = jest.requireActual<typeof StoredModule>('../job/stored-job');
      const file = { job: { ...job, edit }, history: EMPTY_HISTORY, revision: 3 };
      const read = readStoredJob(storedJob(file));
      expect(read).toEqual({ ok: true, file });
    });
  });
});
