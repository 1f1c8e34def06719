/** `npm run bench`: figures of this machine, each beside a reference of the same run. */
import { readFileSync, rmSync, writeFileSync } from 'node:fs';
import { work } from './material';
import { encoder } from './parts-encoder';
import { kernel, memory, wholeExport } from './parts-export';
import { kernelMemory } from './parts-kernel-memory';
import { canvases, coverage } from './parts-framing';
import { checks } from './parts-checks';
import { follow, followMemory } from './parts-follow';
import { makers, segments } from './parts-makers';
import { cuts, pass, passMemory, steps } from './parts-pass';
import { store } from './parts-store';
import { tasks } from './parts-tasks';
import { words } from './parts-words';
import { workers } from './parts-workers';
import { Report } from './report';

/** Every part, by the name that picks it out: `npm run bench -- pass steps`. */
const PARTS: Record<string, (report: Report) => void | Promise<void>> = {
  cuts,
  pass,
  steps,
  'pass-memory': passMemory,
  kernel,
  'kernel-memory': kernelMemory,
  export: wholeExport,
  encoder,
  coverage,
  canvases,
  checks,
  follow,
  'follow-memory': followMemory,
  memory,
  store,
  tasks,
  words,
  makers,
  segments,
  workers,
};

const PAGE = 'docs/benchmarks.md';

async function main(): Promise<void> {
  const wanted = process.argv.slice(2).filter((name) => name in PARTS);
  const report = new Report(readFileSync(PAGE, 'utf8'));
  for (const [name, part] of Object.entries(PARTS)) {
    if (wanted.length > 0 && !wanted.includes(name)) continue;
    await part(report);
    report.end(name);
    writeFileSync(PAGE, report.page(Object.keys(PARTS)));
  }
  rmSync(work, { recursive: true });
}

void main();
