import { frameOf, type RenderPlan } from '@core/render/plan';
import { applyCommand } from '@core/job/commands';
import { testJob } from '@core/test-job';
import {
  leavePlayer,
  mountView,
  playJob,
  setDraft,
  showFrame,
  stepFrames,
  togglePlay,
  usePlayer,
} from './player';

interface Listener {
  onFrame(frame: number, pictures: Record<string, unknown>): void;
  onEnded(): void;
}
const mockPlayer = {
  calls: [] as unknown[][],
  plan: null as RenderPlan | null,
  listener: null as Listener | null,
};
jest.mock('@media/player', () => ({
  Player: class {
    constructor(_master: unknown, listener: Listener) {
      mockPlayer.listener = listener;
    }
    setPlan(plan: RenderPlan) {
      mockPlayer.plan = plan;
    }
    setViews(sizes: unknown) {
      mockPlayer.calls.push(['views', sizes]);
    }
    show(frame: number) {
      mockPlayer.calls.push(['show', frame]);
    }
    play(from: number, to: number) {
      mockPlayer.calls.push(['play', from, to]);
    }
    pause() {
      mockPlayer.calls.push(['pause']);
    }
    close() {
      mockPlayer.calls.push(['close']);
    }
  },
}));

const job = testJob();
const cut = { ...job, edit: { ...job.edit, cut: [{ in: 100, out: 200 }] } };
const last = () => mockPlayer.calls[mockPlayer.calls.length - 1];

beforeEach(() => {
  leavePlayer();
  mockPlayer.calls = [];
  playJob(cut);
});

describe('the player', () => {
  it('opens at the in point, with a plan in which output frame n is master frame n', () => {
    expect(last()).toEqual(['show', 100]);
    expect(mockPlayer.plan?.frames).toBe(984);
    expect(frameOf(mockPlayer.plan!, 777).masterFrame).toBe(777);
  });

  it('steps and shows only frames that the master has', () => {
    stepFrames(-1);
    expect(last()).toEqual(['show', 99]);
    showFrame(5000);
    expect(last()).toEqual(['show', 983]);
    showFrame(-5);
    expect(last()).toEqual(['show', 0]);
  });

  it('plays what is kept: from the playhead inside, else from the in point', () => {
    showFrame(150);
    togglePlay();
    expect(last()).toEqual(['play', 150, 200]);
    togglePlay();
    expect(last()).toEqual(['pause']);
    showFrame(40);
    togglePlay();
    expect(last()).toEqual(['play', 100, 200]);
    mockPlayer.listener?.onFrame(120, {});
    expect(usePlayer.getState()).toMatchObject({ frame: 120, shown: 120, playing: true });
    mockPlayer.listener?.onEnded();
    expect(usePlayer.getState().playing).toBe(false);
  });

  it('draws a framing that is being dragged, without making it a step', () => {
    const x = () => frameOf(mockPlayer.plan!, 0).panes[0]!.window.x;
    const before = x();
    const middle = { x: 0.5, y: 0.5 };
    setDraft({
      shot: 'shot-1',
      track: 'main',
      keyframes: [{ frame: 0, focus: { x: 0.2, y: 0.5 }, seat: middle, zoom: 1 }],
    });
    expect(x()).toBeLessThan(before);
    setDraft(null);
    expect(x()).toBe(before);
  });

  it('takes up a change of the job that is on it', () => {
    playJob({
      ...cut,
      edit: applyCommand(cut.edit, { type: 'choose-placement', placement: 'tesselle/square' }, cut.master),
    });
    expect(mockPlayer.plan).toMatchObject({ width: 1080, height: 1080 });
    expect(mockPlayer.calls).not.toContainEqual(['close']);
  });

  it('draws only the views that are on screen, and paints a late one at once', () => {
    const painted: unknown[] = [];
    const unmount = mountView('master', { width: 10, height: 6 }, (picture) => painted.push(picture));
    expect(last()).toEqual(['views', { master: { width: 10, height: 6 } }]);
    const picture = { close: jest.fn() };
    mockPlayer.listener?.onFrame(100, { master: picture });
    unmount();
    expect(last()).toEqual(['views', {}]);
    mountView('master', { width: 10, height: 6 }, (late) => painted.push(late))();
    expect(painted).toEqual([picture, picture]);
    mockPlayer.listener?.onFrame(101, { master: { close: jest.fn() } });
    expect(picture.close).toHaveBeenCalled();
  });
});
