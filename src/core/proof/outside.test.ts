import { plainFraming } from '../framing/framing';
import type * as Window from '../framing/window';
import { sourceOf } from '../master/source';
import { planOf } from '../render/plan';
import { testMaster, testRange, testShot } from '../job/test-job';
import { canvasOf } from '../layout/canvas';
import type * as Coverage from './coverage';

/** How far every window is put past where it belongs, 0…1 across. */
let mockAstray = 0;
jest.doMock('../framing/window', () => {
  const real = jest.requireActual<typeof Window>('../framing/window');
  return {
    ...real,
    windowAt: (...args: Parameters<typeof real.windowAt>) => {
      const window = real.windowAt(...args);
      return { ...window, x: window.x + mockAstray };
    },
  };
});

// Only what is loaded from here on meets windows that went astray.
const { coverageOf } = jest.requireActual<typeof Coverage>('./coverage');

const shots = [testShot('a', 0, 100), testShot('b', 100, 984)];
const canvas = canvasOf('verrow/short', { width: 1080, height: 1920 }, { num: 24000, den: 1001 }, 'canvas-1');
const plan = planOf(canvas, {
  cut: [testRange(0, 150)],
  shots,
  framings: [plainFraming('a', 'main', 0)],
  sources: [sourceOf(testMaster())],
});

it('says so when a window reaches past the picture, whatever put it there', () => {
  // 656.25 of 1920 pixels are free at each side.
  mockAstray = 656 / 1920;
  expect(coverageOf(plan).covered).toBe(true);
  mockAstray = 657 / 1920;
  expect(coverageOf(plan)).toMatchObject({
    covered: false,
    reason: 'outside',
    bareFrames: 150,
    bareShots: ['a', 'b'],
    worstFrame: 0,
  });
});
