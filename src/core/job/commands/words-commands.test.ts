import { PLAIN_CANVAS_TEXT } from '../../words/canvas-text';
import { NO_CAPTIONS } from '../../words/captions';
import { plainBlock } from '../../words/text-block';
import { activeCanvas } from '../clip';
import { activeClip } from '../job';
import { testJob, testRange } from '../test-job';
import { applyCommand } from './commands';

const { edit } = testJob();
const canvas = activeCanvas(activeClip(edit));
const [a, b] = [plainBlock('block-1', 'Kites'), plainBlock('block-2', 'Windle Bay')];
const placeOf = (block: string) => {
  const { on, box, seat, fitted } = a;
  return { block, on, box, seat, fitted, size: 0.1, shown: false };
};

describe('commands of words', () => {
  it('take what a canvas has of its own of a block along with the block, and of no other', () => {
    const both = applyCommand(edit, { type: 'set-blocks', act: 'add', blocks: [a, b] });
    const places = [placeOf(a.id), placeOf(b.id)];
    const hidden = applyCommand(both, {
      type: 'set-canvas-text',
      act: 'hide',
      canvas: canvas.id,
      text: { ...PLAIN_CANVAS_TEXT, places },
    });
    const one = applyCommand(hidden, { type: 'set-blocks', act: 'remove', blocks: [b] });
    expect(activeCanvas(activeClip(one)).text?.places).toEqual([placeOf(b.id)]);
    // A block that is written anew under the same id is seen everywhere.
    const again = applyCommand(one, { type: 'set-blocks', act: 'add', blocks: [b, a] });
    expect(activeCanvas(activeClip(again)).text?.places).toEqual([placeOf(b.id)]);
  });

  it('leave a canvas the same object where it has nothing of its own', () => {
    const added = applyCommand(edit, { type: 'set-blocks', act: 'add', blocks: [a] });
    expect(activeCanvas(activeClip(added))).toBe(canvas);
  });

  it('change how captions look without touching what they say', () => {
    const cues = [{ id: 'cue-1', text: 'Kites', spans: [testRange(0, 50)] }];
    const read = applyCommand(edit, { type: 'set-cues', act: 'read', cues });
    const { cues: _none, ...look } = NO_CAPTIONS;
    const changed = applyCommand(read, {
      type: 'set-captions',
      act: 'look',
      captions: { ...look, seat: 'top' },
    });
    expect(activeClip(changed).text?.captions).toEqual({ ...NO_CAPTIONS, seat: 'top', cues });
  });
});
