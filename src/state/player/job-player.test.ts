import { testRateChange, choose, testJob, testMaster, testRange, testFraming } from '@core/job/test-job';
import { parseFingerprint } from '@core/master/fingerprint';
import type { PlanOverlay } from '@core/render/overlays';
import { plannedFrame, type PlanSegment, type RenderPlan } from '@core/render/plan';
import { withSegments } from '@core/render/redraw-segments';
import { applyCommand } from '@core/job/commands/commands';
import type { Cut } from '@core/cut/cut';
import { activeClip, type Job } from '@core/job/job';
import { plainBlock } from '@core/words/text-block';
import { NO_REPAIRS } from '@core/master/repairs';
import { player, usePlayer } from '.';

interface Listener {
  onFrame(event: {
    source: number;
    frame: number;
    piece: { playId: number; index: number } | null;
    pictures: Record<string, unknown>;
  }): void;
  onQuality(quality: string): void;
  onEnded(): void;
}
const mockPlayer = {
  calls: [] as unknown[][],
  plans: {} as Record<string, RenderPlan[]>,
  words: {} as Record<string, (readonly PlanOverlay[])[]>,
  moved: {} as Record<string, PlanSegment[][]>,
  listener: null as Listener | null,
};
jest.mock('@media/play/player', () => ({
  Player: class {
    constructor(_sources: unknown, listener: Listener) {
      mockPlayer.listener = listener;
    }
    open(sources: unknown[]) {
      mockPlayer.calls.push(['open', sources.length]);
    }
    findProxies() {
      mockPlayer.calls.push(['proxies']);
    }
    setPlans(plans: Record<string, RenderPlan[]>) {
      mockPlayer.plans = plans;
      mockPlayer.moved = {};
      mockPlayer.words = {};
    }
    showWords(overlays: Record<string, (readonly PlanOverlay[])[]>) {
      mockPlayer.words = overlays;
    }
    redraw(segments: Record<string, PlanSegment[][]>) {
      mockPlayer.moved = segments;
    }
    setViews(sizes: unknown) {
      mockPlayer.calls.push(['views', sizes]);
    }
    show(source: number, frame: number) {
      mockPlayer.calls.push(['show', source, frame]);
    }
    play(pieces: unknown[], quality: string, _speed: number, card: boolean) {
      mockPlayer.calls.push(['play', pieces, quality, ...(card ? [] : ['no card'])]);
    }
    pause() {
      mockPlayer.calls.push(['pause']);
    }
    close() {
      mockPlayer.calls.push(['close']);
    }
  },
}));

const other = testMaster({ id: 'other', fingerprint: parseFingerprint('b'.repeat(64)), frames: 50 });
const job: Job = { ...testJob(), masters: [testMaster(), other] };
const withCut = (cut: Cut): Job => ({
  ...job,
  edit: applyCommand(job.edit, { type: 'set-cut', act: 'trim', cut }),
});
const cut = withCut([testRange(100, 200)]);
const last = () => mockPlayer.calls[mockPlayer.calls.length - 1];
const VIEW = 'canvas:canvas-1';
const plans = () =>
  mockPlayer.plans[VIEW]!.map((plan, i) => withSegments(plan, mockPlayer.moved[VIEW]?.[i] ?? []));
const plan = () => plans()[0]!;
const frameEvent = (frame: number, index: number | null, pictures = {}) => ({
  source: 0,
  frame,
  piece: index === null ? null : { playId: 1, index },
  pictures,
});

beforeEach(() => {
  player.dispose();
  mockPlayer.calls = [];
  player.openJob(cut);
});

describe('the player', () => {
  it('opens at the in point, with plans in which output frame n is frame n of each master', () => {
    expect(last()).toEqual(['show', 0, 100]);
    expect(plans().map((plan) => plan.frames)).toEqual([984, 50]);
    expect(plannedFrame(plan(), 777).masterFrame).toBe(777);
  });

  it('steps and shows only frames that the master has', () => {
    player.stepFrames(-1);
    expect(last()).toEqual(['show', 0, 99]);
    player.showFrame(5000);
    expect(last()).toEqual(['show', 0, 983]);
    player.showFrame(-5);
    expect(last()).toEqual(['show', 0, 0]);
    player.showFrame(5000, 'other');
    expect(last()).toEqual(['show', 1, 49]);
    expect(usePlayer.getState()).toMatchObject({ master: 'other', frame: 49 });
  });

  it('plays what is kept: from the playhead inside, else from the in point', () => {
    const piece = (from: number, to: number) => [{ source: 0, from, to }];
    player.showFrame(150);
    player.togglePlay();
    expect(last()).toEqual(['play', piece(150, 200), 'auto']);
    player.togglePlay();
    expect(last()).toEqual(['pause']);
    player.showFrame(40);
    player.togglePlay();
    expect(last()).toEqual(['play', piece(100, 200), 'auto']);
    mockPlayer.listener?.onFrame(frameEvent(120, 0));
    expect(usePlayer.getState()).toMatchObject({ frame: 120, shown: 120, playing: true, range: 0 });
    mockPlayer.listener?.onEnded();
    expect(usePlayer.getState().playing).toBe(false);
  });

  it('plays ranges of several masters in their order, on from the one on screen', () => {
    const ranges = [testRange(100, 200), { master: 'other', in: 5, out: 9 }, testRange(0, 50)];
    player.openJob(withCut(ranges));
    player.showFrame(6, 'other');
    player.togglePlay();
    expect(last()).toEqual([
      'play',
      [
        { source: 1, from: 6, to: 9 },
        { source: 0, from: 0, to: 50 },
      ],
      'auto',
    ]);
    mockPlayer.listener?.onFrame(frameEvent(3, 1));
    expect(usePlayer.getState()).toMatchObject({ master: job.masters[0]!.id, frame: 3, range: 2 });
  });

  it('plays a cut that is only proposed, and at the quality that is asked for', () => {
    player.setQuality('quarter');
    player.playCut([testRange(7, 9)]);
    expect(last()).toEqual(['play', [{ source: 0, from: 7, to: 9 }], 'quarter']);
    player.setQuality('auto');
    mockPlayer.listener?.onQuality('half');
    expect(usePlayer.getState()).toMatchObject({ quality: 'half', wish: 'auto' });
  });

  it('has the end card after each master, and plays it after the clip, not after pieces to look at', () => {
    const card = { seconds: 1, colour: '#204060' };
    player.openJob({ ...cut, edit: applyCommand(cut.edit, { type: 'set-card', card }) });
    expect(plans().map((plan) => [plan.frames, plan.cardFrames])).toEqual([
      [984 + 24, 24],
      [50 + 24, 24],
    ]);
    const groundAt = (frame: number) => plannedFrame(plan(), frame).words.map(({ art }) => art.ground);
    expect([983, 984, 984 + 23].map(groundAt)).toEqual([[], ['#204060'], ['#204060']]);
    player.playPieces([testRange(7, 9)]);
    expect(last()).toEqual(['play', [{ source: 0, from: 7, to: 9 }], 'auto', 'no card']);
  });

  it('goes on showing the cover in the place of the clip when something else of the job changes', () => {
    const blocks = [
      plainBlock('block-1', 'In the clip'),
      { ...plainBlock('block-2', 'On it'), on: 'cover' as const },
    ];
    const worded = { ...cut, edit: applyCommand(cut.edit, { type: 'set-blocks', act: 'add', blocks }) };
    player.openJob(worded);
    const unmount = player.mountView(VIEW, { width: 6, height: 10 }, () => undefined);
    const clip = activeClip(worded.edit);
    const shown = () => mockPlayer.words[VIEW]?.[0]?.map(({ art }) => art.text);
    player.setWordsDraft({ text: clip.text!, canvases: clip.canvases, side: 'cover' });
    expect(shown()).toEqual(['On it']);
    player.openJob({
      ...worded,
      edit: applyCommand(worded.edit, { type: 'set-video-bits', bits: 5_000_000 }),
    });
    expect(shown()).toEqual(['On it']);
    player.setWordsDraft(null);
    player.openJob(worded);
    expect(shown()).toBeUndefined();
    // What is only being written ends with the next state of the job.
    player.setWordsDraft({ text: clip.text!, canvases: clip.canvases, side: 'clip' });
    player.openJob({ ...worded });
    expect(shown()).toBeUndefined();
    unmount();
  });

  it('takes up a repair and a new proxy', () => {
    const repairs = { ...NO_REPAIRS, rotation: 90 as const };
    const rates = testRateChange(other.rate, other.rate);
    player.openJob({
      ...cut,
      edit: applyCommand(cut.edit, { type: 'set-repairs', master: 'other', repairs, rates }),
    });
    expect(mockPlayer.calls).toContainEqual(['open', 2]);
    mockPlayer.calls = [];
    player.findProxy('b'.repeat(64));
    player.findProxy('c'.repeat(64));
    expect(mockPlayer.calls).toEqual([['proxies']]);
  });

  it('draws a framing that is being dragged, without making it a step', () => {
    const x = () => plannedFrame(plan(), 0).panes[0]!.window.x;
    const before = x();
    player.setDraft({ framings: [testFraming({ focus: { x: 0.2, y: 0.5 } })], owner: 'shared' });
    expect(x()).toBeLessThan(before);
    // Also once the job under it has changed.
    player.openJob({ ...cut, edit: applyCommand(cut.edit, { type: 'set-video-bits', bits: 5_000_000 }) });
    expect(x()).toBeLessThan(before);
    player.setDraft(null);
    expect(x()).toBe(before);
  });

  it('takes up a change of the job that is on it', () => {
    player.openJob({
      ...cut,
      edit: applyCommand(cut.edit, choose('tesselle/square')),
    });
    expect(plan()).toMatchObject({ width: 1080, height: 1080 });
    expect(mockPlayer.calls).not.toContainEqual(['close']);
  });

  it('draws only the views that are on screen, and paints a late one at once', () => {
    const painted: unknown[] = [];
    const unmount = player.mountView('master', { width: 10, height: 6 }, (picture) => painted.push(picture));
    expect(last()).toEqual(['views', { master: { width: 10, height: 6 } }]);
    const picture = { close: jest.fn() };
    mockPlayer.listener?.onFrame(frameEvent(100, null, { master: picture }));
    unmount();
    expect(last()).toEqual(['views', {}]);
    player.mountView('master', { width: 10, height: 6 }, (late) => painted.push(late))();
    expect(painted).toEqual([picture, picture]);
    mockPlayer.listener?.onFrame(frameEvent(101, null, { master: { close: jest.fn() } }));
    expect(picture.close).toHaveBeenCalled();
  });
});
