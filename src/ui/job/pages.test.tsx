import { fireEvent, screen, within } from '@testing-library/react-native';
import { useJobs } from '@state/job';
import { testJob, TEST_MASTER, testRange } from '@core/job/test-job';
import { CheckScreen } from '../check/check-screen';
import { LengthRuler } from '../cut/length-ruler';
import { ProofTable } from '../export/proof-table';
import { PostWordsForm } from '../post/post-words';
import { getActiveClip, renderPage } from '../test-page';
import { CanvasScreen } from './canvas-screen';

const mockRouter = { replace: jest.fn(), push: jest.fn(), dismissTo: jest.fn() };
jest.mock('expo-router', () => ({ useRouter: () => mockRouter, useLocalSearchParams: () => ({}) }));
// The grid is judged in a worker, which only a browser has.
jest.mock('@media/check/checker', () => ({ Checker: jest.fn(() => ({ check: jest.fn() })) }));
// Keys come from a browser's window.
jest.mock('../parts/use-keys', () => ({ useKeys: jest.fn() }));
// The page's player and exports start workers, which only a browser has.
jest.mock('@state/player', () => ({ player: { showFrame: jest.fn() }, usePlayer: () => '' }));

const press = (name: string | RegExp) => fireEvent.press(screen.getByText(name));

describe('the check page', () => {
  it('shows the worst first, fixes by a tap, and lets the export go', () => {
    const job = testJob({ frames: 3000 });
    renderPage(job, <CheckScreen />);
    const rows = screen
      .getAllByLabelText(/: (stop|warn|note|pass)$/)
      .map((row) => row.props['aria-label'] as string);
    expect(rows[0]).toBe('Length: stop');
    expect(rows[rows.length - 1]).toMatch(/pass$/);
    expect(screen.getByText('The export is kept back')).toBeTruthy();
    expect(screen.getByText(/^125\.13 s, limit 60 s$/)).toBeTruthy();
    press('Trim to 60 s');
    expect(getActiveClip(job).cut).toEqual([testRange(0, 1438)]);
    expect(screen.getByText('Go to the export')).toBeTruthy();
  });

  it('overrides a stop by its name, and takes it back', () => {
    const job = testJob();
    renderPage(job, <CheckScreen />);
    press('Override “Required tag”…');
    fireEvent.changeText(screen.getByLabelText('Why “Required tag” may pass'), 'the outlet asked for none');
    press('Override “Required tag”');
    expect(getActiveClip(job).overrides).toEqual([
      { rule: 'tag', canvas: 'canvas-1', reason: 'the outlet asked for none' },
    ]);
    expect(screen.getByText('Let pass on this canvas: the outlet asked for none')).toBeTruthy();
    expect(screen.getByText('Required tag (overridden)')).toBeTruthy();
    press('Apply “Required tag” again');
    expect(getActiveClip(job).overrides).toEqual([]);
  });

  it('leads to the frame that a stop is about', () => {
    const { player } = jest.requireMock<{ player: { showFrame: jest.Mock } }>('@state/player');
    renderPage(testJob({ frames: 3000 }), <CheckScreen />);
    press('See the frame');
    expect(player.showFrame).toHaveBeenCalledWith(1438, TEST_MASTER);
    expect(mockRouter.replace).toHaveBeenCalledWith('/job/job-1/frame');
  });
});

describe('the canvas page', () => {
  it('lists every placement with its limits and takes the one that is pressed', () => {
    const job = testJob();
    renderPage(job, <CanvasScreen />);
    expect(
      screen.getAllByText('at most 60 s, best 15–20 s, 60 fps, 250.0 MB, no bars, tag #upright'),
    ).toHaveLength(2);
    fireEvent.press(screen.getByLabelText('Tesselle Portrait'));
    expect(getActiveClip(job).canvases[0]).toMatchObject({
      placement: 'tesselle/portrait',
      width: 1080,
      height: 1350,
    });
    expect(within(screen.getByLabelText('Tesselle Portrait')).getByText('Chosen')).toBeTruthy();
  });
});

describe('the words of a post', () => {
  it('take tags without marks and spaces, once each, and drop them', () => {
    const job = testJob();
    renderPage(job, <PostWordsForm />);
    const field = screen.getByLabelText('Add a tag');
    for (const typed of ['#up right', 'upright', '  ']) {
      fireEvent.changeText(field, typed);
      fireEvent(field, 'submitEditing');
    }
    expect(getActiveClip(job).words.tags).toEqual(['upright']);
    fireEvent.press(screen.getByLabelText('Remove #upright'));
    expect(getActiveClip(job).words.tags).toEqual([]);
  });

  it('being typed are one step for undo', () => {
    const job = testJob();
    renderPage(job, <PostWordsForm />);
    for (const text of ['K', 'Ki', 'Kit', 'Kite']) fireEvent.changeText(screen.getByLabelText('Title'), text);
    expect(getActiveClip(job).words.title).toBe('Kite');
    expect(useJobs.getState().files[job.id]?.history.past).toHaveLength(1);
    expect(screen.getByText('4 of 100 characters.')).toBeTruthy();
  });

  it('hold a description to what the outlet shows', () => {
    const job = testJob();
    renderPage(job, <PostWordsForm />);
    fireEvent.changeText(screen.getByLabelText('Description'), 'x'.repeat(3000));
    expect(getActiveClip(job).words.description).toHaveLength(2000);
  });
});

describe('the length ruler', () => {
  const ruler = (out: number) =>
    renderPage(testJob({ frames: 3000 }), <LengthRuler cut={[testRange(0, out)]} />);

  it('says what is over, in frames', () => {
    ruler(1450);
    expect(screen.getByText(/1450 frames, 12 over/)).toBeTruthy();
    expect(screen.getByLabelText('Clip length')).toHaveTextContent('1:00.5');
  });

  it('says when the clip is in the best range', () => {
    ruler(400);
    expect(screen.getByText(/Verrow Short: best 15–20 s \(in it\), limit 60 s/)).toBeTruthy();
  });
});

describe('the proof', () => {
  const fact = { what: 'Frames', asked: '88', found: '87', ok: false };
  const borders = { left: 0, top: 2, right: 0, bottom: 0 };

  it('names what is not as asked', () => {
    renderPage(testJob(), <ProofTable proof={{ facts: [fact], framesSearched: 88, borders, pass: false }} />);
    expect(screen.getByText('Read back: not as asked')).toBeTruthy();
    expect(screen.getByLabelText('Frames: 87, asked 88, not as asked')).toBeTruthy();
    expect(screen.getByText('left 0, top 2, right 0, bottom 0 px')).toBeTruthy();
  });
});
