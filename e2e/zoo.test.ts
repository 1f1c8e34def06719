import { readFileSync, writeFileSync } from 'node:fs';
import { makeZoo, type Specimen } from '../tests/media-zoo';
import { probe } from '../tests/make-clip';
import { atTheApp } from './app';
import { OtherVisitor } from './other-visitor';

const TABLE = 'docs/media-support.md';

/** What the app said of a file: the facts on its master page, or the words of its refusal. */
interface Said {
  facts: Record<string, string>;
  refusal: string | null;
}

/** Brings in one small file of each kind; every one comes in with right facts, or is refused for the right reason. */
describe('files of all kinds', () => {
  const here = atTheApp();
  const zoo = makeZoo();
  const rows: string[] = [];
  let other: OtherVisitor;

  beforeAll(async () => {
    other = await OtherVisitor.arrive(here.server.origin);
  });
  afterAll(async () => {
    await other.leave();
    writeFileSync(TABLE, table(rows));
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

  /** The same in Firefox. */
  async function bringInElsewhere(file: string): Promise<Said> {
    await other.goHome();
    await other.drop(file);
    const refusal = await other.refusal();
    if (refusal !== null) return { facts: {}, refusal };
    await other.step('Master');
    return { facts: factsOf(await other.labelsOf('Facts')), refusal: null };
  }

  it.each(zoo.map((specimen) => [specimen.name, specimen] as const))('%s', async (name, specimen) => {
    const said = await bringIn(specimen.file);
    rows.push(rowOf(name, specimen, said, await bringInElsewhere(specimen.file)));
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
    for (const row of rows) expect(kept).toContain(row);
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

const rowOf = (name: string, { how }: Specimen, said: Said, elsewhere: Said): string => {
  const [here, there] = [wordsOf(said), wordsOf(elsewhere)];
  return `| ${name} | ${how} | ${here} | ${there === here ? 'the same' : there} |`;
};

const wordsOf = ({ facts, refusal }: Said): string =>
  refusal
    ? `refused: ${(refusal.split('\n').find((line) => line.length > 3) ?? '').replace(/\S+\.(mp4|mov|webm|mkv|avi|ts|m4v)/, 'the file')}`
    : [facts.Size, facts['Frame rate'], facts.Picture, facts.Sound].filter(Boolean).join('; ');

const table = (rows: readonly string[]): string =>
  [
    '# Media support',
    '',
    'Written by `e2e/zoo.test.ts`: each small file is made with ffmpeg, brought in through the interface in headless',
    "Chromium, and compared with ffprobe's facts; then it is brought in in Firefox. Another browser may decode more or",
    'less.',
    '',
    '| file | how it is made | what becomes of it in Chromium | in Firefox |',
    '|---|---|---|---|',
    ...rows,
    '',
  ].join('\n');
