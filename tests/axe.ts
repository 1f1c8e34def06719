import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import type { Page } from 'playwright-core';

const SOURCE = readFileSync(createRequire(__filename).resolve('axe-core/axe.min.js'), 'utf8');
/** WCAG 2.2, levels A and AA. */
const TAGS = ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa'];

interface Result {
  violations: { id: string; help: string; nodes: { html: string; failureSummary?: string }[] }[];
}

/** Longest that anything fades, in milliseconds. */
const FADED = 500;

/** Lists what axe-core finds wrong with a page as it is: a line for each element. */
export async function faultsOf(page: Page): Promise<string[]> {
  // Evaluated, since the page's policy lets no foreign script in.
  await page.evaluate(SOURCE);
  const faults = await faultsNow(page);
  if (faults.length === 0) return [];
  // A label may have been half faded.
  await page.waitForTimeout(FADED);
  return faultsNow(page);
}

async function faultsNow(page: Page): Promise<string[]> {
  const { violations } = await page.evaluate(
    (tags) =>
      (window as unknown as { axe: { run(options: object): Promise<Result> } }).axe.run({
        runOnly: { type: 'tag', values: tags },
      }),
    TAGS,
  );
  return violations.flatMap(({ id, help, nodes }) =>
    nodes.map(
      ({ html, failureSummary = '' }) =>
        `${id}: ${help}: ${html.slice(0, 200)} ${failureSummary.slice(0, 300)}`,
    ),
  );
}
