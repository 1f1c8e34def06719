import { escapeHtml } from '../figures/escape-html';
import type { ReportRow } from './check-report';

const RESULTS: Record<ReportRow['result'], string> = {
  stop: 'Stop',
  warn: 'Warning',
  unknown: 'Not known yet',
  note: 'Note',
  pass: 'Passed',
};

const STYLE = `
body { font: 14px/1.4 system-ui, sans-serif; color: #1f2b33; margin: 24px; max-width: 900px; }
h1 { font-size: 24px; } h2 { font-size: 18px; margin-top: 24px; } h3 { font-size: 15px; margin: 12px 0 4px; }
img { max-height: 120px; border: 1px solid #8a8271; }
table { border-collapse: collapse; width: 100%; }
th, td { text-align: left; vertical-align: top; padding: 4px 8px; border-bottom: 1px solid #ded5c2; }
.stop { font-weight: bold; } .passed { color: #566269; }
section { break-inside: avoid-page; }`;

/** Groups rows by a key, in their order. */
function groups<T>(rows: readonly T[], of: (row: T) => string): Map<string, T[]> {
  const found = new Map<string, T[]>();
  for (const row of rows) found.set(of(row), [...(found.get(of(row)) ?? []), row]);
  return found;
}

function line({ rule, result, words, measured, override }: ReportRow): string {
  const pass = override === '' ? '' : `<br>Let pass: ${escapeHtml(override)}`;
  const cells = [`${RESULTS[result]}`, escapeHtml(rule), `${escapeHtml(words)}${pass}`, escapeHtml(measured)];
  return `<tr class="${result}">${cells.map((cell) => `<td>${cell}</td>`).join('')}</tr>`;
}

function canvas(rows: readonly ReportRow[]): string {
  const [first] = rows;
  if (!first) return '';
  const telling = rows.filter(({ result }) => result !== 'pass');
  const passed = rows.filter(({ result }) => result === 'pass').map(({ rule }) => escapeHtml(rule));
  const head = '<tr><th>Result</th><th>Rule</th><th>What it means</th><th>Measured</th></tr>';
  return `<section><h3>${escapeHtml(first.placement)}, ${first.width}×${first.height}</h3>
${telling.length > 0 ? `<table>${head}${telling.map(line).join('')}</table>` : ''}
<p class="passed">Passed: ${passed.join(', ') || 'nothing'}.</p></section>`;
}

/**
 * A report as a page to print, whole in itself.
 * @param pictures of clips, as data addresses, by {@link pictureKey}. @param at when it is made, in words.
 */
export function reportPage(
  rows: readonly ReportRow[],
  pictures: Readonly<Record<string, string>>,
  at: string,
): string {
  const jobs = [...groups(rows, ({ job }) => job)].map(([job, own]) => {
    const clips = [...groups(own, ({ clip }) => clip)].map(([clip, found]) => {
      const picture = pictures[pictureKey(job, clip)];
      const shown = picture === undefined ? '' : `<p><img src="${escapeHtml(picture)}" alt=""></p>`;
      const canvases = [
        ...groups(found, ({ placement, width, height }) => `${placement} ${width} ${height}`).values(),
      ];
      return `<h2>${escapeHtml(clip)}</h2>${shown}${canvases.map(canvas).join('')}`;
    });
    return `<h1>${escapeHtml(job)}</h1>${clips.join('')}`;
  });
  return `<!doctype html>
<html lang="en">
<head><meta charset="utf-8"><title>Check of ${escapeHtml(rows[0]?.job ?? 'clips')}</title><style>${STYLE}</style></head>
<body>${jobs.join('')}<p class="passed">Made ${escapeHtml(at)}.</p></body>
</html>
`;
}

/** Key of a clip's picture. */
export const pictureKey = (job: string, clip: string): string => `${job}\n${clip}`;
