/** Figures of tasks in workers. */
import path from 'node:path';
import { openHarness } from './harness';
import { work } from './material';
import type { Report } from './report';

/** The round trip of the smallest task, beside that of a worker that does nothing. */
export async function tasks(report: Report): Promise<void> {
  const harness = await openHarness(path.join(work, 'unused.mp4'));
  const { task, bare } = await harness.page.evaluate(() => window.bench.taskTimes());
  await harness.close();
  report.line('round trip of a task', task, 'ms', bare, task / bare, '8 or less');
}
