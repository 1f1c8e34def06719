/** The page that benchmarks drive: the application's own workers, without its interface. */
import { createRenderPlan } from '../src/core/render/plan';
import { toSource, type Source } from '../src/core/master/source';
import { makeCanvas } from '../src/core/layout/canvas';
import type { LayoutKind } from '../src/core/layout/layout';
import { Kernel } from '../src/kernel/kernel';
import { Player } from '../src/media/play/player';
import { storedFile } from '../src/media/store/storage';
import { bringInFile, makeExport, passOverMaster } from '../src/media/worker/tasks';

import { rateValue } from '../src/core/time/frame-rate';
import { gatherShotEvidence } from '../src/state/framing/evidence';
import { dragTimes, exportLayout, exportThree } from './canvases';
import { measureStore } from './store';
import { taskTimes } from './task-times';
import { exportWords, keystroke, layoutTime } from './words';
import { createEncodeSettings } from './making';

/** The file that the benchmark put into the page's one field. */
function chosenFile(): File {
  const file = document.querySelector('input')?.files?.[0];
  if (!file) throw new Error('no file was chosen');
  return file;
}

/** Brings the chosen file in, as the application does. */
async function chosenSource(): Promise<Source> {
  const { master } = await bringInFile({ file: chosenFile() }, {});
  return toSource(master);
}

/** Exports the first `seconds` of the chosen file to 1080×1920. */
async function exportChosen(
  seconds: number,
  videoBits: number,
): Promise<{ milliseconds: number; frames: number }> {
  const source = await chosenSource();
  const frames = Math.min(source.frames, Math.round((seconds * source.rate.num) / source.rate.den));
  const canvas = makeCanvas(null, { width: 1080, height: 1920 }, source.rate, 'canvas-1');
  const cut = [{ master: source.id, in: 0, out: frames }];
  const plan = createRenderPlan(canvas, { cut, shots: [], framings: [], sources: [source] });
  const start = performance.now();
  await makeExport(
    { outputs: [{ name: 'bench.mp4', plan, making: createEncodeSettings(plan, videoBits) }] },
    {},
  );
  const milliseconds = performance.now() - start;
  return { milliseconds, frames };
}

/** Milliseconds of the pass over the chosen file, and of plainly decoding it in a worker of the same kind. */
async function passChosen(): Promise<{ pass: number; decode: number; frames: number }> {
  const source = await chosenSource();
  const measureMs = async (work: () => Promise<unknown>) => {
    const start = performance.now();
    await work();
    return performance.now() - start;
  };
  const decode = await measureMs(() => decodeAll(source));
  const pass = await measureMs(() => passOverMaster({ source }, {}));
  return { pass, decode: Math.min(decode, await measureMs(() => decodeAll(source))), frames: source.frames };
}

/** Looks at the chosen file once. */
async function lookAtChosen(): Promise<number> {
  const pass = await passOverMaster({ source: await chosenSource() }, {});
  return pass.shots.length;
}

/** Milliseconds of looking for subjects in the whole chosen file, in its proxy, and how long it plays. */
async function followChosen(): Promise<{ milliseconds: number; seconds: number; subjects: number }> {
  const { master } = await bringInFile({ file: chosenFile() }, {});
  const source = toSource(master);
  const { shots } = await passOverMaster({ source }, {});
  const ranges = shots.map(({ frame }, i) => ({ in: frame, out: shots[i + 1]?.frame ?? source.frames }));
  const start = performance.now();
  const { spans } = await gatherShotEvidence(master, ranges, () => undefined, new AbortController().signal);
  const milliseconds = performance.now() - start;
  const subjects = spans.reduce((sum, { tracks }) => sum + tracks.length, 0);
  return { milliseconds, seconds: source.frames / rateValue(source.rate), subjects };
}

/** Decodes every frame of a stored master in a worker, and does nothing with them. */
function decodeAll({ fingerprint }: Source): Promise<number> {
  const worker = new Worker('/decode.worker.js', { type: 'module' });
  return new Promise((resolve, reject) => {
    worker.onmessage = ({ data }: MessageEvent<number>) => resolve(data);
    worker.onerror = reject;
    worker.postMessage(fingerprint);
  }).then((frames) => {
    worker.terminate();
    return frames as number;
  });
}

/** Frames that are stepped to, and the seconds that each may take at most. */
const STEPS = 24;
const LONGEST_STEP = 20_000;

/**
 * Median milliseconds from asking for the frame before the one on screen until it is shown, at places all over the
 * chosen file. After a pass the player has a proxy to step in; before it only the master.
 */
async function stepChosen(afterPass: boolean): Promise<number> {
  const source = await chosenSource();
  if (afterPass) await passOverMaster({ source }, {});
  let shown: (frame: number) => void = () => undefined;
  const player = new Player([source], {
    onFrame: ({ frame }) => shown(frame),
    onQuality: () => undefined,
    onEnded: () => undefined,
    onTrouble: (trouble) => console.error(trouble),
  });
  player.setViews({ master: { width: 780, height: 439 } });
  const go = (frame: number) =>
    new Promise<number>((resolve, reject) => {
      const start = performance.now();
      const late = setTimeout(() => reject(new Error(`frame ${frame} never came`)), LONGEST_STEP);
      shown = (found) => {
        if (found !== frame) return;
        clearTimeout(late);
        resolve(performance.now() - start);
      };
      player.show(0, frame);
    });
  const times: number[] = [];
  for (let i = 0; i < STEPS; i++) {
    const frame = 1 + Math.floor(((i * 0.618034) % 1) * (source.frames - 2));
    await go(frame);
    times.push(await go(frame - 1));
  }
  player.close();
  return times.sort((a, b) => a - b)[STEPS / 2] ?? NaN;
}

/** Sends the last export to `/result`, for others to judge. */
async function sendResult(): Promise<void> {
  await fetch('/result', { method: 'POST', body: await storedFile('exports', 'bench.mp4') });
}

/** Milliseconds per frame of the kernel, in the best of some rounds, for 1920×1080 to 1080×1920, over the raw I420 frames of the chosen file. */
async function kernelTime(rounds: number): Promise<number> {
  const kernel = await Kernel.load(await (await fetch('/kernel-relaxed.wasm')).arrayBuffer());
  const raw = new Uint8Array(await chosenFile().arrayBuffer());
  const source = kernel.source('I420', 1920, 1080);
  const target = kernel.target(1080, 1920);
  const whole = { x: 0, y: 0, width: 1080, height: 1920 };
  const count = Math.floor(raw.length / source.size);
  const pass = () => {
    for (let i = 0; i < count; i++) {
      kernel.bytes(source.address, source.size).set(raw.subarray(i * source.size, (i + 1) * source.size));
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

const dragChosen = async () => dragTimes(await chosenSource());
const threeChosen = async (frames: number, oneGo: boolean, videoBits: number) =>
  exportThree(await chosenSource(), frames, oneGo, videoBits);
const layoutChosen = async (frames: number, kind: LayoutKind, videoBits: number) =>
  exportLayout(await chosenSource(), frames, kind, videoBits);

const wordsChosen = async (seconds: number, words: boolean, videoBits: number) =>
  exportWords(await chosenSource(), seconds, words, videoBits);
const keystrokeChosen = async (captions: number) => keystroke(await chosenSource(), captions);
const wordLayoutChosen = async (captions: number) => layoutTime(await chosenSource(), captions);

Object.assign(window, {
  bench: {
    exportChosen,
    passChosen,
    lookAtChosen,
    stepChosen,
    followChosen,
    dragChosen,
    threeChosen,
    layoutChosen,
    wordsChosen,
    keystrokeChosen,
    wordLayoutChosen,
    sendResult,
    kernelTime,
    measureStore,
    taskTimes,
  },
});
