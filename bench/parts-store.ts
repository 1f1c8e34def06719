/** Figures of the job store: what a command on a job as large as they come costs and writes. */
import { rmSync } from 'node:fs';
import { openHarness } from './harness';
import type { Report } from './report';

export async function store(report: Report): Promise<void> {
  const harness = await openHarness('unused');
  const found = await harness.page.evaluate(() => window.bench.measureStore());
  await harness.close();
  rmSync('unused', { force: true });
  const { command, slowest, whole, written, stored } = found;
  report.line('a command, main thread', command, 'ms', whole, command / whole, '4 ms or less');
  report.line('the slowest of 100 commands', slowest, 'ms', whole, slowest / whole);
  report.line(
    'a command writes at most',
    written / 1000,
    'kB',
    stored / 1000,
    written / stored,
    '20 kB or less',
  );
  report.line('the whole job with 200 steps', stored / 1000, 'kB', 1000, stored / 1e6, 'under 1 MB');
}
