/** Measures what sharing a file out over workers costs: in processor seconds, since cores are few here. */
import { readdirSync, readFileSync } from 'node:fs';
import path from 'node:path';
import { Fleet } from '../server/fleet/fleet';
import { renderFile } from '../server/render/render';
import { builtProgram } from '../server/root';
import { smallOrder } from '../tests/small-order';
import { TestRedis, TestWorker } from '../tests/test-redis';
import { grainyMaster, work } from './material';
import { processorSeconds } from './processor';
import type { Report } from './report';

const MAX_WORKERS = 4;
const SECONDS = 40;
/** Processor seconds of all workers so far. */
const spent = (): number =>
  readdirSync('/proc')
    .filter((name) => /^\d+$/.test(name))
    .filter((pid) => {
      try {
        return readFileSync(`/proc/${pid}/cmdline`, 'utf8').includes(builtProgram('worker'));
      } catch {
        return false;
      }
    })
    .reduce((sum, pid) => sum + processorSeconds(Number(pid)), 0);

/** Has one to four workers make the same file, beside one alone. */
export async function workers(report: Report): Promise<void> {
  const film = grainyMaster('shared-out.mp4', SECONDS, 60);
  const order = await smallOrder(film, { rate: { kind: 'variable', bits: 1_500_000, most: null } });
  const redis = await TestRedis.start();
  const fleet = await Fleet.open(redis.url, 'http://127.0.0.1:0');
  const rows: [string, number, number][] = [];
  for (let count = 1; count <= MAX_WORKERS; count++) {
    const own = await Promise.all(Array.from({ length: count }, () => new TestWorker(redis.url).start()));
    const before = spent();
    const began = performance.now();
    const to = path.join(work, `${count}.mp4`);
    const signal = new AbortController().signal;
    await renderFile(order, {
      folder: `${to}.parts`,
      to,
      maker: (here) => fleet.createMaker(order, here),
      signal,
    });
    rows.push([`${count}`, spent() - before, (performance.now() - began) / 1000]);
    await Promise.all(own.map((worker) => worker.stop()));
  }
  await fleet.close();
  await redis.stop();
  report.ways('Workers, 40 s of a grainy 1080p30 film', ['processor seconds', 'seconds'], rows);
  const [, alone = 1] = rows[0] ?? [];
  for (const [count, seconds] of rows.slice(1))
    report.line(`${count} workers, processor seconds`, seconds, 's', alone, seconds / alone, '1.15');
}
