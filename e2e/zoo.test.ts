import { readFileSync, writeFileSync } from 'node:fs';
import { makeZoo, type Specimen } from '../tests/media-zoo';
import { probe } from '../tests/make-clip';
import { drawn, soakFigure } from '../tests/soak';
import { atTheApp } from './app';
import { OtherVisitor } from './other-visitor';

const TABLE = 'docs/media-support.md';
/** The end of a row that was not tried in Firefox: `npm run soak` tries all, and writes the table. */
const UNTRIED = '(not tried)';
/** Files of one visit in Firefox. */
const VISIT = 8;

/** Answer of the app to a file: the facts on its master page, or the words of its refusal. */
interface Said {
  facts: Record<string, string>;
  refusal: string | null;
}

/** Brings in small files of many kinds; every one comes in with right facts, or is refused for the right reason. */
describe('files of all kinds', () => {
  const here = atTheApp();
  const all = makeZoo();
  const zoo = drawn(all, 3);
  const elsewhere = new Set(drawn(zoo, 1));
  const rows: string[] = [];
  let other: OtherVisitor | null = null;
  let visits = 0;

  afterAll(async () => {
    await other?.leave();
    const whole = rows.length === all.length && !rows.some((row) => row.endsWith(UNTRIED));
    if (whole) writeFileSync(TABLE, table(rows));
    soakFigure(
      'files in both engines',
      `${zoo.length} kinds: taken or refused as docs/media-support.md says`,
    );
  });

  async function bringIn(file: string): Promise<Said> {
    const { page } = here.visitor;
    // Each file finds an empty list.
    await here.visitor.forgetJobs();
    await page.goto('/');
    await here.visitor.button('Bring in a video').waitFor();
    await here.visitor.pick(file);
    const refused = page.getByRole('alert').first();
    await Promise.race([page.waitForURL(/\/job\/[^/]+$/), refused.waitFor()]);
    if (!/\/job\//.test(page.url())) return { facts: {}, refusal: await refused.innerText() };
    await here.visitor.step('Master');
    const items = await page.getByRole('list', { name: 'Facts' }).getByRole('listitem').all();
    const labels = await Promise.all(items.map((item) => item.getAttribute('aria-label')));
    return { facts: factsOf(labels), refusal: null };
  }

  /** The same in Firefox, which gets slower with every file of a visit. */
  async function bringInElsewhere(file: string): Promise<Said> {
    if (visits++ % VISIT === 0) {
      await other?.leave();
      other = null;
    }
    const visitor = (other ??= await OtherVisitor.arrive(here.server.origin));
    await visitor.forgetJobs();
    await visitor.goHome();
    await visitor.drop(file);
    const refusal = await visitor.refusal();
    if (refusal !== null) return { facts: {}, refusal };
    await visitor.step('Master');
    return { facts: factsOf(await visitor.labelsOf('Facts')), refusal: null };
  }

  it.each(zoo.map((specimen) => [specimen.name, specimen] as const))('%s', async (name, specimen) => {
    const said = await bringIn(specimen.file);
    const there = elsewhere.has(specimen) ? await bringInElsewhere(specimen.file) : null;
    rows.push(rowOf(name, specimen, said, there));
    if (specimen.refused) {
      expect(said.refusal).toMatch(specimen.refused);
      return;
    }
    expect(said.refusal).toBeNull();
    for (const [fact, wanted] of Object.entries({ ...probedFacts(specimen), ...specimen.facts })) {
      expect(`${fact}: ${said.facts[fact]}`).toMatch(
        wanted instanceof RegExp
          ? new RegExp(`^${fact}: .*${wanted.source}`)
          : new RegExp(`^${fact}: ${wanted}`),
      );
    }
  });

  it('makes the same table as is kept', () => {
    const kept = readFileSync(TABLE, 'utf8');
    for (const row of rows) expect(kept).toContain(row.replace(UNTRIED, ''));
  });
});

/** Facts by their labels, as `Size: 320×180`. */
const factsOf = (labels: readonly (string | null)[]): Record<string, string> =>
  Object.fromEntries(labels.map((label) => (label ?? '').split(/: (.*)/s) as [string, string]));

/** Facts as ffprobe finds them, in the app's words. */
function probedFacts({ file, sizeIsOwn }: Specimen): Record<string, string | RegExp> {
  const streams = probe(file);
  const video = streams.find((stream) => stream?.codec_type === 'video');
  const audio = streams.find((stream) => stream?.codec_type === 'audio');
  const facts: Record<string, string | RegExp> = {};
  if (!sizeIsOwn) facts.Size = new RegExp(`${video?.width}×${video?.height}$`);
  const kilohertz = Number(audio?.sample_rate) / 1000;
  const channels = Number(audio?.channels);
  const words = channels === 1 ? 'mono' : channels === 2 ? 'stereo' : `${channels} channels`;
  facts.Sound = audio ? new RegExp(`${kilohertz} kHz ${words}$`) : 'none';
  return facts;
}

const rowOf = (name: string, { how }: Specimen, said: Said, elsewhere: Said | null): string => {
  const here = wordsOf(said);
  const there = elsewhere && wordsOf(elsewhere);
  return `| ${name} | ${how} | ${here} | ${there === null ? UNTRIED : `${there === here ? 'the same' : there} |`}`;
};

const wordsOf = ({ facts, refusal }: Said): string =>
  refusal
    ? `refused: ${(refusal.split('\n').find((line) => line.length > 3) ?? '').replace(/\S+\.(mp4|mov|webm|mkv|avi|ts|m4v)/, 'the file')}`
    : [facts.Size, facts['Frame rate'], facts.Picture, facts.Sound].filter(Boolean).join('; ');

const table = (rows: readonly string[]): string =>
  [
    '# Media support',
    '',
    'Written by `npm run soak` (`e2e/zoo.test.ts`): each small file is made with ffmpeg, brought in through the interface',
    "in headless Chromium, and compared with ffprobe's facts; then it is brought in in Firefox. Another browser may",
    'decode more or less.',
    '',
    '| file | how it is made | what becomes of it in Chromium | in Firefox |',
    '|---|---|---|---|',
    ...rows,
    '',
  ].join('\n');
