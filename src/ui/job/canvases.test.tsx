import { fireEvent, screen } from '@testing-library/react-native';
import { activeCanvas } from '@core/job/clip';
import type { Job } from '@core/job/job';
import { testJob } from '@core/job/test-job';
import { presets, useJobs } from '@state/job';
import { getActiveClip, renderPage } from '../test-page';
import { CanvasScreen } from './canvas-screen';

jest.mock('expo-router', () => ({ useRouter: () => ({ replace: jest.fn() }) }));
// Keys come from a browser's window.
jest.mock('../parts/use-keys', () => ({ useKeys: jest.fn() }));
// The player starts workers, which only a browser has.
jest.mock('@media/play/player', () => ({ Player: jest.fn() }));

let job: Job;
const press = (label: string) => fireEvent.press(screen.getByLabelText(label));
const pressText = (text: string) => fireEvent.press(screen.getByText(text));
const type = (label: string, text: string) => fireEvent.changeText(screen.getByLabelText(label), text);
const sizes = () => getActiveClip(job).canvases.map(({ width, height }) => `${width}×${height}`);
const acts = () => useJobs.getState().files[job.id]!.history.past.length;

beforeEach(() => {
  presets.use.setState({ all: [] });
  job = testJob();
  renderPage(job, <CanvasScreen />);
});

describe('the canvases of a clip', () => {
  it('are added from a placement, and the new one is worked on', () => {
    pressText('Add a canvas');
    press('Tesselle Square');
    expect(sizes()).toEqual(['1080×1920', '1080×1080']);
    expect(activeCanvas(getActiveClip(job)).placement).toBe('tesselle/square');
    expect(screen.getByLabelText('Tesselle Square, worked on')).toBeTruthy();
  });

  it('are not added once the person thinks better of it', () => {
    pressText('Add a canvas');
    pressText('Cancel');
    press('Tesselle Square');
    expect(sizes()).toEqual(['1080×1080']);
  });

  it('are duplicated, moved and removed, each as one step; the last one stays', () => {
    expect(screen.getByLabelText('Remove Verrow Short').props.accessibilityState).toMatchObject({
      disabled: true,
    });
    pressText('Add a canvas');
    press('Ratio 4:5');
    press('Move Own 1080×1350 up');
    expect(sizes()).toEqual(['1080×1350', '1080×1920']);
    press('Duplicate Own 1080×1350');
    expect(sizes()).toHaveLength(3);
    press('Remove Own 1080×1350');
    expect(sizes()).toHaveLength(2);
    expect(acts()).toBe(4);
  });

  it('take a typed size, and say which they do not take', () => {
    type('Width', '1081');
    type('Height', '1920');
    pressText('Use this size');
    expect(sizes()).toEqual(['1080×1920']);
    expect(screen.getByText(/even/)).toBeTruthy();
    type('Width', '720');
    type('Height', '1280');
    pressText('Use this size');
    expect(sizes()).toEqual(['720×1280']);
    expect(activeCanvas(getActiveClip(job)).placement).toBeNull();
  });
});

describe('presets', () => {
  it('need a name, and bring a canvas of their size and layout', () => {
    pressText('Save the preset');
    expect(screen.getByText('Give the preset a name first.')).toBeTruthy();
    type('Preset name', ' Tall ');
    pressText('Save the preset');
    expect(presets.use.getState().all.map((preset) => preset.name)).toEqual(['Tall']);
    expect(screen.queryByText('Give the preset a name first.')).toBeNull();
    press('Tesselle Square');
    press('Add Tall');
    expect(sizes()).toEqual(['1080×1080', '1080×1920']);
    press('Delete preset Tall');
    expect(screen.queryByLabelText('Preset Tall')).toBeNull();
  });
});
