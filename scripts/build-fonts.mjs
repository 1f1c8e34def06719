// Copies the fonts for words on the picture into public/fonts/, with an index of what characters each file has.
import * as fontkit from 'fontkit';
import {
  copyFileSync,
  existsSync,
  mkdirSync,
  readdirSync,
  readFileSync,
  rmSync,
  writeFileSync,
} from 'node:fs';

/** By the family's name in core/words/families.ts, the package that ships it. */
const FAMILIES = {
  plain: 'source-sans-3',
  condensed: 'fira-sans-condensed',
  serif: 'eb-garamond',
  slab: 'roboto-slab',
  hand: 'caveat',
  wide: 'unbounded',
  reading: 'andika',
  mono: 'fira-mono',
  arabic: 'noto-sans-arabic',
  hebrew: 'noto-sans-hebrew',
  devanagari: 'noto-sans-devanagari',
  thai: 'noto-sans-thai',
  japanese: 'noto-sans-jp',
  emoji: 'noto-color-emoji',
};
const WEIGHTS = [400, 700];
const FOLDER = 'public/fonts';
const INDEX = `${FOLDER}/index.json`;

const versionOf = (name) =>
  JSON.parse(readFileSync(`node_modules/@fontsource/${name}/package.json`, 'utf8')).version;

/** Code points in a row as hexadecimal ranges: `20-7e,a0`. */
function rangesOf(points) {
  const ranges = [];
  for (const point of [...points].sort((a, b) => a - b)) {
    const last = ranges.at(-1);
    if (last && point <= last[1] + 1) last[1] = point;
    else ranges.push([point, point]);
  }
  return ranges
    .map(([from, to]) => (from === to ? from.toString(16) : `${from.toString(16)}-${to.toString(16)}`))
    .join();
}

function familyOf(name) {
  const folder = `node_modules/@fontsource/${name}/files`;
  const files = [];
  let metrics = null;
  for (const weight of WEIGHTS) {
    const ending = `-${weight}-normal.woff2`;
    for (const file of readdirSync(folder).filter((file) => file.endsWith(ending))) {
      const font = fontkit.create(readFileSync(`${folder}/${file}`));
      const { unitsPerEm, ascent, descent, capHeight } = font;
      metrics ??= {
        ascent: ascent / unitsPerEm,
        descent: -descent / unitsPerEm,
        capHeight: capHeight / unitsPerEm,
      };
      copyFileSync(`${folder}/${file}`, `${FOLDER}/${file}`);
      files.push({ file, weight, ranges: rangesOf(font.characterSet) });
    }
  }
  return { ...metrics, files };
}

/** Does nothing where the fonts of these packages lie there already. */
export function buildFonts() {
  const packages = Object.fromEntries(Object.values(FAMILIES).map((name) => [name, versionOf(name)]));
  if (existsSync(INDEX)) {
    const known = JSON.parse(readFileSync(INDEX, 'utf8'));
    if (JSON.stringify(known.packages) === JSON.stringify(packages)) return;
  }
  rmSync(FOLDER, { recursive: true, force: true });
  mkdirSync(FOLDER, { recursive: true });
  const families = Object.fromEntries(Object.entries(FAMILIES).map(([id, name]) => [id, familyOf(name)]));
  writeFileSync(INDEX, JSON.stringify({ packages, families }));
}
