/** Makes a file of a job and its masters, without a browser: see {@link HELP}. */
import { mkdtemp, readFile, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { parseArgs } from 'node:util';
import { toJobEncodeSettings, planOfJob } from '../../src/core/check/check';
import { durationLabel } from '../../src/core/figures/figures';
import { describeProblem } from '../../src/core/figures/schema-problem';
import { readJobFile } from '../../src/core/interchange/job-file';
import { activeCanvas } from '../../src/core/job/clip';
import { activeClip, type Job, onCanvas, onClip } from '../../src/core/job/job';
import { encodingSchema } from '../../src/core/rate/encoding';
import { canvasLabel } from '../../src/core/outlets/outlets';
import { SHIPPED_SHEETS } from '../../src/core/outlets/shipped';
import { TroubleError, troubleWords } from '../../src/core/trouble/trouble';
import { findFonts, findMasters, CommandError } from './cli-sources';
import { renderFile } from './render';

const HELP = `Makes a file of a job and its masters.

  npm run render -- JOB.json --out FILE [options]

  --clip ID         the clip, where the job has several (default: the one worked on)
  --canvas ID       the canvas, likewise
  --masters FOLDER  where the masters' files lie (default: beside the job)
  --settings FILE   JSON of how the file is made, in the place of the canvas's own
  --quiet           no progress

Fonts of your own that words have are looked for in the masters' folder too.

Ends with 0 when the file is whole, 1 when it could not be made, 2 when what was asked makes no sense, 3 when a
master is missing, and 130 when it was stopped.`;

const { values, positionals } = parseCommand();

function parseCommand() {
  try {
    return parseArgs({
      allowPositionals: true,
      options: {
        out: { type: 'string' },
        clip: { type: 'string' },
        canvas: { type: 'string' },
        masters: { type: 'string' },
        settings: { type: 'string' },
        quiet: { type: 'boolean', default: false },
        help: { type: 'boolean', default: false },
      },
    });
  } catch (error) {
    console.error(`${error instanceof Error ? error.message : String(error)}\n\n${HELP}`);
    process.exit(2);
  }
}

async function readText(file: string, what: string): Promise<string> {
  return readFile(file, 'utf8').catch(() => {
    throw new CommandError(2, `${what} ${file} cannot be read.`);
  });
}

/** The job, working on the clip and the canvas that were asked for. */
async function readJob(file: string): Promise<Job> {
  const read = readJobFile(await readText(file, 'The job'));
  if (!read.ok) throw new CommandError(2, `${file} is no job that can be used: ${read.detail}.`);
  const { clips } = read.job.edit;
  const { clip = read.job.edit.clip, canvas } = values;
  const found = clips.find(({ id }) => id === clip);
  if (!found)
    throw new CommandError(2, `The job has no clip ${clip}. It has ${clips.map(({ id }) => id).join(', ')}.`);
  if (canvas !== undefined && !found.canvases.some(({ id }) => id === canvas)) {
    const has = found.canvases.map((one) => `${one.id} (${canvasLabel(SHIPPED_SHEETS, one)})`).join(', ');
    throw new CommandError(2, `The clip has no canvas ${canvas}. It has ${has}.`);
  }
  const job = onClip(read.job, clip);
  return canvas === undefined ? job : onCanvas(job, canvas);
}

/** The job with the canvas's file made as a file of settings says. */
async function withSettings(job: Job): Promise<Job> {
  if (values.settings === undefined) return job;
  const text = await readText(values.settings, 'The settings');
  const read = encodingSchema.safeParse(parseJson(text));
  if (!read.success) throw new CommandError(2, `${values.settings}: ${describeProblem(read.error)}`);
  const clip = activeClip(job.edit);
  const { id } = activeCanvas(clip);
  const canvases = clip.canvases.map((canvas) =>
    canvas.id === id ? { ...canvas, encoding: read.data } : canvas,
  );
  const clips = job.edit.clips.map((other) => (other.id === clip.id ? { ...clip, canvases } : other));
  return { ...job, edit: { ...job.edit, clips } };
}

function parseJson(text: string): unknown {
  try {
    return JSON.parse(text);
  } catch {
    return null;
  }
}

/** Says how far it is, and for how long it goes on. */
function createProgressPrinter(): (progress: { done: number; total: number }) => void {
  const began = Date.now();
  let said = 0;
  return ({ done, total }) => {
    const now = Date.now();
    if (values.quiet || now - said < 1000) return;
    said = now;
    const left = ((now - began) / done) * (total - done);
    console.error(`${Math.round((100 * done) / total)} %, about ${durationLabel(left / 1000)} left`);
  };
}

async function run(): Promise<void> {
  const [file, ...more] = positionals;
  if (values.help) return console.log(HELP);
  if (file === undefined || values.out === undefined || more.length > 0) throw new CommandError(2, HELP);
  const job = await withSettings(await readJob(path.resolve(file)));
  const plan = planOfJob(job, SHIPPED_SHEETS);
  const making = toJobEncodeSettings(job, { sheets: SHIPPED_SHEETS });
  const sources = path.resolve(values.masters ?? path.dirname(file));
  const masters = { ...(await findMasters(sources, job)), ...(await findFonts(sources, plan)) };
  const stop = new AbortController();
  for (const signal of ['SIGINT', 'SIGTERM'] as const) process.once(signal, () => stop.abort());
  const folder = await mkdtemp(path.join(tmpdir(), 'gusset-render-'));
  try {
    const options = {
      folder,
      to: path.resolve(values.out),
      signal: stop.signal,
      onProgress: createProgressPrinter(),
    };
    const { bytes } = await renderFile({ plan, making, masters }, options);
    console.log(JSON.stringify({ file: options.to, bytes, frames: plan.frames }));
  } finally {
    await rm(folder, { recursive: true, force: true });
  }
}

run().then(
  () => process.exit(0),
  (error: unknown) => {
    if (error instanceof TroubleError && error.trouble.code === 'cancelled') process.exit(130);
    if (error instanceof TroubleError) {
      const { what, todo } = troubleWords(error.trouble);
      console.error(`${what} ${todo}`);
    } else console.error(error instanceof Error ? error.message : String(error));
    process.exit(error instanceof CommandError ? error.code : 1);
  },
);
