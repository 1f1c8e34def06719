/** The page that benchmarks drive: the application's own workers, without its interface. */
import { planOf } from '../src/core/render/plan';
import { canvasOf, MAIN_TRACK } from '../src/core/layout/canvas';
import { Kernel } from '../src/kernel/kernel';
import { storedFile } from '../src/media/storage';
import { bringInFile, makeExport } from '../src/media/tasks';

/** The file that the benchmark put into the page's one field. */
function chosenFile(): File {
  const file = document.querySelector('input')?.files?.[0];
  if (!file) throw new Error('no file was chosen');
  return file;
}

/** Exports the first `seconds` of the chosen file to 1080×1920. */
async function exportChosen(
  seconds: number,
  videoBits: number,
): Promise<{ milliseconds: number; frames: number }> {
  const master = await bringInFile({ file: chosenFile() }, {});
  const frames = Math.min(master.frames, Math.round((seconds * master.rate.num) / master.rate.den));
  const canvas = canvasOf('bench/tall', { width: 1080, height: 1920 }, master.rate, 'canvas-1');
  const plan = planOf(canvas, {
    cut: [{ in: 0, out: frames }],
    shots: [{ id: 'all', in: 0, out: master.frames }],
    framings: [
      {
        shot: 'all',
        track: MAIN_TRACK,
        keyframes: [{ frame: 0, focus: { x: 0.5, y: 0.5 }, seat: { x: 0.5, y: 0.5 }, zoom: 1 }],
      },
    ],
    live: master.picture,
  });
  const start = performance.now();
  await makeExport({ name: 'bench.mp4', master, plan, videoBits }, {});
  const milliseconds = performance.now() - start;
  return { milliseconds, frames };
}

/** Sends the last export to `/result`, for others to judge. */
async function sendResult(): Promise<void> {
  await fetch('/result', { method: 'POST', body: await storedFile('exports', 'bench.mp4') });
}

/** Milliseconds per frame of the kernel, in the best of some rounds, for 1920×1080 to 1080×1920, over the raw I420 frames of the chosen file. */
async function kernelTime(rounds: number): Promise<number> {
  const kernel = await Kernel.load(await (await fetch('/kernel.wasm')).arrayBuffer());
  const raw = new Uint8Array(await chosenFile().arrayBuffer());
  const source = kernel.source('I420', 1920, 1080);
  const target = kernel.target(1080, 1920);
  const whole = { x: 0, y: 0, width: 1080, height: 1920 };
  const count = Math.floor(raw.length / source.size);
  const pass = () => {
    for (let i = 0; i < count; i++) {
      kernel.bytes(source.at, source.size).set(raw.subarray(i * source.size, (i + 1) * source.size));
      kernel.scale(source, { x: 656, y: 0, width: 608, height: 1080 }, target, whole);
    }
  };
  let best = Infinity;
  for (let round = 0; round < rounds; round++) {
    const start = performance.now();
    pass();
    best = Math.min(best, (performance.now() - start) / count);
  }
  return best;
}

Object.assign(window, { bench: { exportChosen, sendResult, kernelTime } });
