/** Figures of words on the picture. */
import { BITS, grainyMaster, inHarness, SECONDS } from './material';
import type { Report } from './report';

/** Captions of a long clip. */
const CAPTIONS = 300;
/** Exports of each kind; the best counts. */
const ROUNDS = 2;
/** A frame at 60 Hz, in milliseconds. */
const FRAME = 1000 / 60;

/** Measures what words add to an export, what a keystroke costs, and how long many captions take to lay out. */
export async function words(report: Report): Promise<void> {
  const master = grainyMaster('grainy-words.mp4', SECONDS, 120);
  const times: Record<'with' | 'without', number[]> = { with: [], without: [] };
  // In turns, so that a machine that slows down slows both.
  for (let run = 0; run < ROUNDS; run++) {
    for (const kind of ['without', 'with'] as const) {
      const milliseconds = await inHarness(master, (page) =>
        page.evaluate(([s, w, b]) => window.bench.wordsChosen(s, w, b), [
          SECONDS,
          kind === 'with',
          BITS,
        ] as const),
      );
      times[kind].push(milliseconds / 1000);
    }
  }
  const [own, bare] = [Math.min(...times.with), Math.min(...times.without)];
  report.line('export of 20 s with captions and two blocks', own, 's', bare, own / bare, '1.1 or less');
  const { redraw, page } = await inHarness(master, (harness) =>
    harness.evaluate((captions) => window.bench.keystrokeChosen(captions), CAPTIONS),
  );
  report.line('keystroke to redraw, 300 captions', redraw, 'ms', FRAME, redraw / FRAME, '1.0 or less');
  report.line('of that on the page itself', page, 'ms', FRAME, page / FRAME, 'well under 1');
  const { layout, bare: measured } = await inHarness(master, (harness) =>
    harness.evaluate((captions) => window.bench.wordLayoutChosen(captions), CAPTIONS),
  );
  report.line('layout of 300 captions on three canvases', layout, 'ms', measured, layout / measured);
}
