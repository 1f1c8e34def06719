import { cpus } from 'node:os';
import type { confusion } from '../tests/score';

/** Heading of the explanation under the tables. */
const MEANING = 'What the figures mean';
const LEGEND = [
  '- **pass**: everything the pass makes and measures, in a worker, against plainly decoding the same stored file',
  '  in a worker (best of two). **a step back**: from asking to shown, median, in the proxy; the reference is the',
  '  master itself with a key frame every 300 frames.',
  '- **F1**: over generated films with flashes, whip pans, fades and dissolves (`tests/film-maker.ts`).',
  '- **kernel**: 1920×1080 to 1080×1920 fill, in headless Chromium, copying each frame in; against ffmpeg',
  '  `crop,scale=flags=lanczos` with one thread on the same raw frames, less the time of reading them.',
  '- **kernel memory**: over a whole clip whose window and tilt grow; the reference is its first second.',
  '- **export of 20 s**: decode, kernel, H.264 and AAC at 8 Mb/s in headless Chromium, of the drawn demo film and of',
  '  a 1080p30 film with grain; against',
  '  `ffmpeg -vf crop,scale=flags=lanczos -c:v libx264 -preset veryfast` at the same bit rate.',
  '- **facts of a drag step**: the shot, coverage and enlargement once one of ten moving shots a minute has changed, median',
  '  of 101; the reference is a clip of one minute, then a frame at 60 Hz.',
  '- **a drag step**: panes worked out anew for three canvases and drawn on a phone-sized page; the reference draws',
  '  the view of the master once, from a bitmap of its size. **three canvases**: of the same',
  '  grainy 1080p30 master as the pass, against three exports one after another.',
  '- **checks**: 12 clips on 4 canvases for 6 placements, of a job of 200 moving shots; the reference is the same from',
  '  nothing, then a frame at 60 Hz, which is what handing the job to the worker may cost the main thread. **a changed',
  '  sheet**: 30 such jobs with one clip each, judged by the sheets before and after; the reference is one of them.',
  '- **evidence**: looking for subjects in the proxy of a grainy 1080p30 master, by detectors and by movement; the reference',
  '  is how long it plays. **paths**: of 60 s in ten shots for three canvases; the reference is a second.',
  '- **stacked, backdrop**: 1080×1920 in that layout against the single one.',
  '- **peak memory of a pass**: all browser processes (PSS); the reference is a file of five minutes.',
  '- **export SSIM**: each against the uncompressed frames of its own window; the reference is the ffmpeg export.',
  '- **SSIM, PSNR**: in luma, of eight seconds with the bits that the browser used of those it was asked for; the',
  '  reference is `libx264 -preset veryfast` at those same bits.',
  '- **a command**: on a job of 200 shots, 4 canvases, 12 clips and a full history (`tests/big-job.ts`), median of 100;',
  '  the reference writes that job and its history as one text, as it was done before.',
  '- **export with captions and two blocks**: of the grainy 1080p30 master, a caption every two seconds, one of the blocks with',
  '  a fade; the reference is the same export without words. **keystroke**: the words of 300 captions worked out, handed over and',
  '  drawn on a phone-sized canvas, median of 60; the reference is a frame at 60 Hz. **layout**: the reference measures each of',
  '  their words once by the browser alone.',
  '- **peak memory**: all browser processes (PSS) while 5 minutes are exported; the reference is 20 seconds.',
  '- **makers**: the server at 8 Mb/s against `ffmpeg -vf crop,scale -preset medium` in two passes, by hand; a trial of six rates',
  '  against the export of a clip of three minutes. **segments**: a clip in two closed segments against one piece.',
  '- **a task**: reading one caption in a worker of its own, from asking to the answer, median of 15; the reference is a',
  '  module worker that only answers.',
  '- **workers**: processor seconds of all workers that share a file out; the reference is one worker alone.',
];

/** A figure beside its reference. */
interface Line {
  name: string;
  value: number;
  unit: string;
  reference: number;
  ratio: number;
  target: string;
}

/** Takes figures as they are measured, prints each, and makes a page of them: a section for each part. */
export class Report {
  private lines: Line[] = [];
  private tables: string[] = [];
  private readonly sections: Map<string, string>;

  /** @param before the page as it was: a part that is not measured now keeps its section. */
  constructor(before: string) {
    this.sections = new Map(
      before
        .split(/^## /m)
        .slice(1)
        .map((section) => [
          section.slice(0, section.indexOf('\n')),
          section.slice(section.indexOf('\n') + 1).trim(),
        ]),
    );
    this.sections.delete(MEANING);
  }

  line(name: string, value: number, unit: string, reference: number, ratio: number, target = ''): void {
    this.lines.push({ name, value, unit, reference, ratio, target });
    console.log(`${name} ${value.toFixed(3)} ${unit} (${reference.toFixed(3)}, ${ratio.toFixed(2)})`);
  }

  /** Ways to do the same, beside each other, in a table of its own. */
  ways(title: string, columns: readonly string[], rows: readonly (readonly [string, ...number[]])[]): void {
    const cells = rows.map(([name, ...values]) => [name, ...values.map((value) => value.toFixed(4))]);
    this.tables.push(formatTable(title, ['', ...columns], cells));
    console.log(title);
    for (const row of rows) console.log(row.join(' '));
  }

  /** Writes the confusion table: what cuts were taken for. */
  table(confused: ReturnType<typeof confusion>): void {
    const names = [...new Set(Object.values(confused).flatMap((row) => Object.keys(row)))];
    const title = 'What is in the generated films (rows), and what it was taken for (columns)';
    const cells = Object.entries(confused).map(([truth, row]) => [
      truth,
      ...names.map((name) => String(row[name] ?? 0)),
    ]);
    this.tables.push(formatTable(title, ['truth', ...names], cells));
    console.table(confused);
  }

  /** A part is measured: what it found becomes its section. */
  end(part: string): void {
    const [cpu] = cpus();
    const day = new Date().toISOString().slice(0, 10);
    const about = `${day}, ${cpus().length} cores of ${cpu?.model.trim() ?? 'an unknown processor'}.`;
    const columns = ['what', 'figure', 'reference', 'ratio', 'target'];
    const figures = this.lines.length === 0 ? [] : [formatTable(null, columns, this.lines.map(formatCells))];
    this.sections.set(part, [about, ...figures, ...this.tables].join('\n\n'));
    this.lines = [];
    this.tables = [];
  }

  /** In Markdown, its parts in this order. */
  page(parts: readonly string[]): string {
    return [
      '# Benchmarks',
      '',
      'Written by `npm run bench`; `npm run bench -- pass steps` measures those parts alone. Each figure stands beside a',
      'reference of the same run; the ratio is what counts.',
      '',
      ...parts.flatMap((part) =>
        this.sections.has(part) ? [`## ${part}`, '', this.sections.get(part), ''] : [],
      ),
      `## ${MEANING}`,
      '',
      ...LEGEND,
      '',
    ].join('\n');
  }
}

function formatTable(
  title: string | null,
  columns: readonly string[],
  rows: readonly (readonly string[])[],
): string {
  const table = [columns, columns.map(() => '---'), ...rows]
    .map((cells) => `| ${cells.join(' | ')} |`)
    .join('\n');
  return title === null ? table : `${title}:\n\n${table}`;
}

function formatCells({ name, value, unit, reference, ratio, target }: Line): string[] {
  return [name, `${value.toFixed(3)} ${unit}`, `${reference.toFixed(3)} ${unit}`, ratio.toFixed(2), target];
}
