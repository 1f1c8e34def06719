import { testJob } from './test-job';
import { PLAIN_LAYOUT } from '../layout/layout';
import {
  addCanvas,
  changeCanvas,
  duplicateCanvas,
  moveCanvas,
  removeCanvas,
  ownSize,
  addPreset,
  RATIOS,
} from './canvases';
import { applyCommand } from './commands/commands';
import { activeClip } from './job';
import { canvasLabel } from '../outlets/outlets';
import { SHIPPED_SHEETS } from '../outlets/shipped';

const FILM = { num: 24000, den: 1001 };
const SQUARE = { width: 1080, height: 1080 };
const start = activeClip(testJob().edit);
const two = { ...start, ...addCanvas(start, SQUARE, 'tesselle/square') };
const three = { ...two, ...addCanvas(two, { width: 640, height: 360 }, null) };
const ids = ({ canvases }: { canvases: { id: string }[] }) => canvases.map((canvas) => canvas.id);

describe('the canvases of a clip', () => {
  it('are added with an id and a dye of their own, and worked on', () => {
    expect(ids(three)).toEqual(['canvas-1', 'canvas-2', 'canvas-3']);
    expect(three.canvases.map((canvas) => canvas.dye)).toEqual([0, 1, 2]);
    expect(three.canvas).toBe('canvas-3');
    const labels = three.canvases.map((canvas) => canvasLabel(SHIPPED_SHEETS, canvas));
    expect(labels).toEqual(['Verrow Short', 'Tesselle Square', 'Own 640×360']);
  });

  it('give their dye back when they are removed, and the last one stays', () => {
    const without = { ...three, ...removeCanvas(three, 'canvas-2') };
    expect(ids(without)).toEqual(['canvas-1', 'canvas-3']);
    expect(without.canvas).toBe('canvas-3');
    expect(removeCanvas(three, 'canvas-3').canvas).toBe('canvas-1');
    expect(addCanvas(without, SQUARE, null).canvases[2]).toMatchObject({ id: 'canvas-2', dye: 1 });
    expect(ids(removeCanvas(start, 'canvas-1'))).toEqual(['canvas-1']);
  });

  it('are copied behind the first, moved within the list, and changed with nothing lost', () => {
    expect(ids(duplicateCanvas(three, 'canvas-1'))).toEqual(['canvas-1', 'canvas-4', 'canvas-2', 'canvas-3']);
    expect(ids(moveCanvas(three, 'canvas-3', -1))).toEqual(['canvas-1', 'canvas-3', 'canvas-2']);
    expect(ids(moveCanvas(three, 'canvas-1', -1))).toEqual(ids(three));
    const wide = changeCanvas(two, 'canvas-2', { width: 1920, height: 1080, placement: null });
    expect({ ...wide.canvases[1], ...SQUARE, placement: 'tesselle/square' }).toEqual(two.canvases[1]);
  });

  it('are made by a preset, with its layout', () => {
    const layout = { ...PLAIN_LAYOUT, kind: 'banded' as const };
    const preset = { name: 'Bands', placement: null, ...SQUARE, rate: { num: 25, den: 1 }, layout };
    expect(addPreset(two, preset)).toMatchObject({
      canvas: 'canvas-3',
      canvases: [{}, {}, { id: 'canvas-3', dye: 2, layout: { kind: 'banded' }, detached: [] }],
    });
  });

  it('have sizes that a canvas may have, and say why another is none', () => {
    for (const { width, height } of RATIOS) expect(ownSize(width, height, FILM)).toEqual({ width, height });
    for (const [width, height] of [
      [1081, 1080],
      [0, 100],
      [5000, 100],
      [NaN, 10],
    ] as const)
      expect(ownSize(width, height, FILM)).toMatchObject({ problem: expect.stringContaining('even') });
  });

  it('are judged by the level table as they are typed', () => {
    // ITU-T H.264 table A-1: 36,864 macroblocks a frame at most, and eight frames' worth in a side's square.
    for (const side of [3840, 4096])
      expect(ownSize(side, side, FILM)).toMatchObject({ problem: expect.stringContaining('No H.264') });
    expect(ownSize(3840, 2160, FILM)).toEqual({ width: 3840, height: 2160 });
    expect(ownSize(3840, 2160, { num: 120, den: 1 })).toHaveProperty('problem');
  });
});

describe('a canvas by itself', () => {
  const { edit } = testJob();
  const [shot] = [{ id: `${edit.clips[0]?.cut[0]?.master}-1`, in: 0 }];

  it('begins as it was, changes alone, and follows again', () => {
    const added = applyCommand(edit, {
      type: 'set-canvases',
      act: 'add',
      ...addCanvas(start, SQUARE, null),
    });
    const alone = applyCommand(added, { type: 'detach', canvas: 'canvas-2', shot });
    expect(activeClip(alone).canvases[1]?.detached).toMatchObject([{ shot: shot.id, track: 'main' }]);
    const [own] = activeClip(alone).canvases[1]?.detached ?? [];
    if (!own) throw new Error('the canvas has a framing of its own');
    const owner = { canvas: 'canvas-2' };
    const set = { type: 'set-framings', act: 'turn', owner, framings: [{ ...own, turn: 90 }] } as const;
    const changed = applyCommand(alone, { ...set, framings: [...set.framings] });
    expect(changed.framings).toEqual([]);
    expect(activeClip(changed).canvases.map((canvas) => canvas.detached.length)).toEqual([0, 1]);
    const back = applyCommand(changed, { type: 'attach', canvas: 'canvas-2', shot: shot.id });
    expect(activeClip(back)).toEqual(activeClip(added));
  });
});
