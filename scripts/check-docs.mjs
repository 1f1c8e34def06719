// `npm run check-docs`: every file, folder and name that the pages in `docs/` and the README put in backticks is there,
// and every worker stands in the table of workers.
import { execFileSync } from 'node:child_process';
import { existsSync, readFileSync } from 'node:fs';

const files = execFileSync('git', ['ls-files', '--cached', '--others', '--exclude-standard'], {
  encoding: 'utf8',
})
  .trim()
  .split('\n')
  .filter((file) => existsSync(file));
const pages = files.filter((file) => /^(README|docs\/[^/]+)\.md$/.test(file));
const sources = files.filter(
  (file) => /\.(tsx?|mjs|c?js|json|html)$/.test(file) && !file.startsWith('docs/'),
);
const names = new Set(sources.flatMap((file) => readFileSync(file, 'utf8').match(/[A-Za-z_$][\w$]*/g) ?? []));

const PATH = /^[\w.-]+(\/[\w.-]+)+\/?$|^[\w.-]+\.(tsx?|mjs|md|json|test)$/;
const NAME = /^[A-Za-z_$][\w$]*(\(\))?$/;
/** A name that is no plain word: `runTask`, `MAX_CUES`. */
const IS_CODE = /[a-z][A-Z]|_/;
/** Parts of addresses and of stored keys that stand for something else: `job/ID/head`. */
const STANDS_FOR = /(^|\/)[A-Z]{2,}(\/|$)/;

/** Tells whether a path is that of a file or a folder, from the root or from any folder. */
function isThere(text) {
  const path = text.replace(/\/$/, '');
  const at = [path, `src/${path}`];
  return (
    at.some((one) => existsSync(one)) ||
    files.some((file) => new RegExp(`(^|/)${path.replaceAll('.', '\\.')}(/|\\.|$)`).test(file))
  );
}

const faults = [];
for (const page of pages) {
  readFileSync(page, 'utf8')
    .split('\n')
    .forEach((line, i) => {
      for (const [, text] of line.matchAll(/`([^`]+)`/g)) {
        const isPath = PATH.test(text) && !STANDS_FOR.test(text);
        const isName = NAME.test(text) && IS_CODE.test(text);
        if ((isPath && !isThere(text)) || (isName && !names.has(text.replace('()', ''))))
          faults.push(`${page}:${i + 1}: there is no ${text}`);
      }
    });
}
const table = readFileSync('docs/architecture.md', 'utf8');
const tasks = readFileSync('src/media/worker/implementations.ts', 'utf8');
const workers = [
  ...[...tasks.matchAll(/^ {2}'?([\w-]+)'?: \{$/gm)].map(([, name]) => name),
  ...files.flatMap((file) => /^src\/media\/worker\/(?!task)(.+)\.worker\.ts$/.exec(file)?.[1] ?? []),
];
for (const worker of workers) {
  if (!new RegExp(`^\\|.*\\b${worker}\\b(?!-)[^|]*\\|`, 'm').test(table))
    faults.push(`docs/architecture.md: the table of workers has no ${worker}`);
}
for (const fault of faults) console.error(fault);
console.log(`${pages.length} pages, ${faults.length} faults.`);
process.exit(faults.length === 0 ? 0 : 1);
