import { act, fireEvent, screen } from '@testing-library/react-native';
import type { ComponentType } from 'react';
import type { Framing } from '@core/framing/framing';
import { activeCanvas } from '@core/job/clip';
import { createFramingCommand, testFraming, testJob, testShot } from '@core/job/test-job';
import { applyCommand } from '@core/job/commands/commands';
import type { Job } from '@core/job/job';
import { chosenLayout, type Layout } from '@core/layout/layout';
import { useFramingUi } from '@state/framing';
import { useJobs } from '@state/job';
import { player, usePlayer } from '@state/player';
import { getActiveClip, renderPage } from '../test-page';
import { CopyPanel } from './copy-panel';
import { FramingNumbers } from './framing-numbers';
import { LayoutPanel } from './layout-panel';
import { MotionPanel } from './motion-panel';
import { PlacePanel } from './place-panel';
import { TurnPanel } from './turn-panel';
import { type FramingTools, useDraggedFraming, useFraming } from './use-framing';

// The player starts workers, which only a browser has.
jest.mock('@media/play/player', () => ({
  Player: class {
    open = jest.fn();
    setPlans = jest.fn();
    redraw = jest.fn();
    setViews = jest.fn();
    show = jest.fn();
    close = jest.fn();
  },
}));

function Bench({ panel: Panel }: { panel: ComponentType<{ tools: FramingTools }> }) {
  return <Panel tools={useFraming()} />;
}
const show = (panel: ComponentType<{ tools: FramingTools }>, job: Job = testJob()): Job => {
  renderPage(job, <Bench panel={panel} />);
  return job;
};
const edit = () => useJobs.getState().files['job-1']!.job.edit;
const past = () => useJobs.getState().files['job-1']!.history.past.length;
const shared = (): Framing => edit().framings[0]!;
const press = (label: string) => fireEvent.press(screen.getByLabelText(label));
const off = (label: string): boolean =>
  screen.getByLabelText(label).props.accessibilityState?.disabled === true;
const type = (label: string, text: string) => {
  fireEvent.changeText(screen.getByLabelText(label), text);
  fireEvent(screen.getByLabelText(label), 'submitEditing');
};
/** The test job with some framing of its one shot. */
const withFraming = (...args: Parameters<typeof createFramingCommand>): Job => {
  const job = testJob();
  return { ...job, edit: applyCommand(job.edit, createFramingCommand(...args)) };
};
const layoutOf = (job: Job): Layout => activeCanvas(getActiveClip(job)).layout;

beforeEach(() => {
  useFramingUi.setState(useFramingUi.getInitialState());
  player.dispose();
});

describe('place', () => {
  it('sets the seat, and knows which it is', () => {
    show(PlacePanel);
    press('Put the subject on the left third');
    expect(shared().keyframes[0]?.seat).toEqual({ x: 1 / 3, y: 0.5 });
    press('Leave head room');
    expect(shared().keyframes[0]?.seat).toEqual({ x: 0.5, y: 1 / 3 });
    expect(screen.getByLabelText('Leave head room').props['aria-pressed']).toBe(true);
  });

  it('leaves lead room ahead of a focus that moves, and offers none to one that stays', () => {
    show(PlacePanel);
    expect(off('Leave lead room')).toBe(true);
    screen.unmount();
    const keyframes = [0.8, 0.2].map((x, i) => ({
      ...testFraming().keyframes[0]!,
      frame: i * 40,
      focus: { x, y: 0.5 },
    }));
    show(PlacePanel, withFraming({}, { keyframes }));
    press('Leave lead room');
    // It goes to the left: two thirds of the window lie ahead of it there.
    for (const { seat } of shared().keyframes) expect(seat.x).toBeCloseTo(2 / 3, 9);
  });

  it('frames a canvas by itself, and lets it follow again', () => {
    const job = show(PlacePanel);
    press('Frame this canvas by itself');
    expect(activeCanvas(getActiveClip(job)).detached).toHaveLength(1);
    press('Put the subject on the right third');
    expect(edit().framings.every((framing) => framing.keyframes[0]?.seat.x === 0.5)).toBe(true);
    press('Share the framing again');
    expect(activeCanvas(getActiveClip(job)).detached).toEqual([]);
  });

  it('fits and fills, and resets to the plain framing', () => {
    show(PlacePanel, withFraming({ zoom: 3 }));
    press('Fit, with bars');
    expect(shared().fit).toBe(true);
    press('Fill the canvas');
    expect(shared().fit).toBe(false);
    press('Reset this shot');
    expect(edit().framings).toEqual([]);
  });
});

describe('the numbers', () => {
  it('move and zoom the window, and say what they do not take', () => {
    show(FramingNumbers);
    // The tallest 9:16 window of 1080 rows is 607.5 wide; a seat in the middle puts its focus 303.75 further.
    type('From left', '100');
    expect(shared().keyframes[0]?.focus.x).toBeCloseTo((100 + 303.75) / 1920, 6);
    type('Zoom', '2');
    expect(shared().keyframes[0]?.zoom).toBe(2);
    type('Zoom', '99');
    expect(screen.getByRole('alert')).toHaveTextContent(/^99 is more than 8\./);
    expect(shared().keyframes[0]?.zoom).toBe(2);
  });

  it('are not there where the whole picture is shown', () => {
    show(FramingNumbers, withFraming({}, { fit: true }));
    expect(screen.queryByLabelText('Zoom')).toBeNull();
    expect(screen.getByText(/there is no window to move/)).toBeTruthy();
  });
});

describe('motion', () => {
  const frames = () => shared().keyframes.map((key) => key.frame);
  it('sets, moves, copies and removes keyframes', () => {
    const job = testJob();
    player.openJob(job);
    player.showFrame(30);
    show(MotionPanel, job);
    press('Set a keyframe');
    expect(frames()).toEqual([0, 30]);
    press('Move the keyframe one frame later');
    expect(frames()).toEqual([0, 31]);
    expect(usePlayer.getState().frame).toBe(31);
    press('Copy the keyframe');
    expect(useFramingUi.getState().copied).toBe(31);
    fireEvent.press(screen.getByLabelText('Go to the keyframe before'));
    expect(usePlayer.getState().frame).toBe(0);
    press('Paste the copied keyframe here');
    expect(shared().keyframes[0]).toMatchObject({ frame: 0, focus: shared().keyframes[1]?.focus });
    fireEvent.press(screen.getByLabelText('Go to the next keyframe'));
    press('Remove the keyframe');
    expect(frames()).toEqual([0]);
  });

  it('eases by name or by a typed curve, and says what is no curve', () => {
    const keyframes = [0, 40].map((frame) => ({
      ...testFraming().keyframes[0]!,
      frame,
      zoom: 1 + frame / 40,
    }));
    show(MotionPanel, withFraming({}, { keyframes }));
    press('Soft end');
    // ease-out of CSS Easing Functions Level 1.
    expect(shared().keyframes[0]?.ease).toEqual([0, 0, 0.58, 1]);
    type('Curve', '0.2, 0, 0.4, 1');
    expect(shared().keyframes[0]?.ease).toEqual([0.2, 0, 0.4, 1]);
    type('Curve', '2 0 0.4 1');
    expect(screen.getByRole('alert')).toHaveTextContent(/^“2 0 0\.4 1” is not a curve/);
    press('Keep this framing for the whole shot');
    expect(shared().keyframes).toHaveLength(1);
  });
});

describe('turn', () => {
  it('tilts within its bounds, says the zoom that it needs, and turns by quarters', () => {
    show(TurnPanel);
    type('Tilt', '−10');
    expect(shared().keyframes[0]?.tilt).toBe(-10);
    // cos 10° + sin 10° · 9/16: the height of the bounding box of the tallest 9:16 window.
    expect(screen.getByText(/its corners need a zoom of 1\.08/)).toBeTruthy();
    type('Tilt', '60');
    expect(screen.getByRole('alert')).toHaveTextContent('60 is more than 45. Type a number from -45 to 45.');
    press('Tilt to the right');
    press('Tilt to the right');
    expect(shared().keyframes[0]?.tilt).toBe(-9);
    press('Turn by 90°');
    expect(shared().turn).toBe(90);
    press('Level: draw along the horizon');
    expect(screen.getByText('Draw a line along what should be level.')).toBeTruthy();
  });
});

describe('layout', () => {
  it('changes the kind and keeps what was set of the others', () => {
    const job = show(LayoutPanel);
    press('Stacked');
    press('Three panes');
    press('Inset');
    press('Next corner');
    press('Stacked');
    expect(layoutOf(job)).toMatchObject({
      kind: 'stacked',
      stacked: { panes: 3 },
      inset: { corner: 'top-left' },
    });
    press('Pane 3');
    expect(useFramingUi.getState().track).toBe('third');
    press('Turned');
    press('To the left');
    expect(layoutOf(job).turned).toEqual({ clockwise: false });
  });

  it('has three panes where one stands above two, and moves the line between them', () => {
    const job = show(LayoutPanel);
    press('One above two');
    press('Pane 3');
    expect(useFramingUi.getState().track).toBe('third');
    expect(layoutOf(job)).toEqual({ kind: 'oneAboveTwo' });
    const moved = chosenLayout(layoutOf(job)).withDivider(0, 2);
    expect(moved).toEqual({ oneAboveTwo: { divider: 0.9 } });
  });

  it('steps the inset as far as its bounds, as one step for undo', () => {
    const job = show(LayoutPanel);
    press('Inset');
    const before = past();
    for (let n = 0; n < 12 && !off('Larger inset'); n++) press('Larger inset');
    expect(layoutOf(job).inset?.width).toBe(0.9);
    expect(off('Larger inset')).toBe(true);
    expect(past()).toBe(before + 1);
    press('Nearer to the edge');
    press('Wider inset');
    press('Rounder corners');
    const { margin, aspect, radius } = { margin: 0, aspect: 0, radius: 0, ...layoutOf(job).inset };
    expect([margin, aspect, radius].map((value) => Number(value.toFixed(3)))).toEqual([0.02, 1.125, 0.22]);
  });

  it('places and dyes the bands, and softens the backdrop', () => {
    const job = show(LayoutPanel);
    press('Banded');
    press('Picture up');
    press('Band colour 2');
    expect(layoutOf(job).banded).toEqual({ place: 0.45, colour: '#1F2B33' });
    press('Soft backdrop');
    for (let n = 0; n < 9 && !off('Sharper backdrop'); n++) press('Sharper backdrop');
    expect(layoutOf(job).backdrop?.blur).toBe(0.01);
  });
});

describe('a drag', () => {
  it('changes what is on screen, and leaves the panels as they are', () => {
    const panels: FramingTools[] = [];
    const pictures: FramingTools[] = [];
    function Seen({ tools }: { tools: FramingTools }) {
      const dragged = useDraggedFraming();
      panels.push(tools);
      pictures.push(dragged);
      return null;
    }
    show(Seen);
    for (const x of [0.2, 0.3, 0.4]) {
      act(() => player.setDraft({ framings: [testFraming({ focus: { x, y: 0.5 } })], owner: 'shared' }));
    }
    act(() => player.setDraft(null));
    expect(new Set(panels).size).toBe(1);
    expect(new Set(pictures.map((picture) => picture.window.x)).size).toBe(4);
    expect(past()).toBe(0);
  });
});

describe('copies', () => {
  const job = testJob();
  const shots = [testShot('a', 0, 300), testShot('b', 300, 600), testShot('c', 600, 984)];
  const three = (zoom: number): Job => {
    const keyframes = [{ ...testFraming().keyframes[0]!, zoom }];
    return { ...job, edit: { ...job.edit, shots, framings: [testFraming({}, { shot: 'a', keyframes })] } };
  };
  const zooms = () =>
    Object.fromEntries(edit().framings.map((framing) => [framing.shot, framing.keyframes[0]?.zoom]));

  it('go to the next shot, to the chosen, and to all, each as one step', () => {
    show(CopyPanel, three(2));
    press('Copy to the next shot');
    expect(zooms()).toEqual({ a: 2, b: 2 });
    expect(off('Copy to the chosen shots')).toBe(true);
    press('Choose shot 3');
    press('Copy to the chosen shots');
    expect(zooms()).toEqual({ a: 2, b: 2, c: 2 });
    // All have it already: there is nothing to undo.
    press('Copy to all shots');
    expect(past()).toBe(2);
  });

  it('take only what was asked for', () => {
    show(CopyPanel, three(2));
    press('Position only');
    press('Copy to the next shot');
    expect(zooms()).toEqual({ a: 2, b: 1 });
  });

  it('are not offered where there is one shot', () => {
    show(CopyPanel);
    expect(screen.getByText(/only one shot, so there is no other to copy to/)).toBeTruthy();
  });
});
