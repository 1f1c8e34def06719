import { z } from 'zod';
import type * as DocumentModule from '../document';
import type * as HistoryModule from '../history';
import type * as JobModule from '../job';
import type * as TestJobModule from '../test-job';
import { command, withClip } from './command';
import type * as CommandsModule from './commands';
import type * as CutModule from './cut-commands';

/** Leaves frames out at the end of every range: a command that nobody had thought of. */
const shorten = command({
  schema: z.object({ frames: z.number().int().min(1) }),
  label: 'shorten every range',
  apply: (edit, { frames }) =>
    withClip(edit, (clip) => ({
      ...clip,
      cut: clip.cut.map((range) => ({ ...range, out: range.out - frames })),
    })),
});

/** Looks at everything with that command beside those of a family of the registry. */
function withAnotherCommand(look: () => void): void {
  jest.isolateModules(() => {
    jest.doMock('./cut-commands', () => {
      const { CUT_COMMANDS } = jest.requireActual<typeof CutModule>('./cut-commands');
      return { CUT_COMMANDS: { ...CUT_COMMANDS, shorten } };
    });
    look();
    jest.dontMock('./cut-commands');
  });
}

describe('a command that is a line of its family', () => {
  it('is applied, refused, stored, replayed, named and undone', () => {
    withAnotherCommand(() => {
      const { applyCommand, stepLabel } = jest.requireActual<typeof CommandsModule>('./commands');
      const { computeChange, EMPTY_HISTORY, undoStep } =
        jest.requireActual<typeof HistoryModule>('../history');
      const { activeClip } = jest.requireActual<typeof JobModule>('../job');
      const { entrySchema, replayEntry } = jest.requireActual<typeof DocumentModule>('../document');
      const job = jest.requireActual<typeof TestJobModule>('../test-job').testJob();
      const shortenBy = (frames: number) =>
        ({ type: 'shorten', frames }) as unknown as Parameters<typeof applyCommand>[1];
      expect(() => applyCommand(job.edit, shortenBy(0))).toThrow('the command is refused: frames');

      const { after, command, delta } = computeChange(job.edit, shortenBy(24))!;
      expect(activeClip(after).cut).toMatchObject([{ in: 0, out: 960 }]);
      expect(stepLabel(command)).toBe('shorten every range');

      const stored: unknown = JSON.parse(
        JSON.stringify({ revision: 1, at: '2026-12-02T08:00:00.000Z', done: { op: 'step', command, delta } }),
      );
      const file = { job, history: EMPTY_HISTORY, revision: 0 };
      const again = replayEntry(file, entrySchema.parse(stored));
      expect(again.job.edit).toEqual(after);
      expect(undoStep({ edit: again.job.edit, history: again.history }).edit).toEqual(job.edit);
    });
  });
});
