import { makeNarrated } from '../tests/make-narrated';
import { SEED } from '../tests/soak';
import { atTheApp } from './app';

/** How far a start that was found may lie from where the phrase is heard, in seconds; and how many must be so near. */
const NEAR = 0.08;
const SHARE = 0.95;

describe('speech between music and noise', () => {
  const here = atTheApp({ touch: true });

  it('is found where it begins, and a script that is laid on it begins there', async () => {
    const { visitor } = here;
    const { file, starts, phrases } = makeNarrated(SEED);
    await visitor.bringIn(file);
    await visitor.step('Words');
    await visitor.tap('radio', 'Captions');
    await visitor.tap('radio', 'Bring in');
    await visitor.tap('button', /^Find the speech in/);
    await visitor.page.getByText(/^Speech was found in/).waitFor({ timeout: 120_000 });
    const found = await visitor.page.evaluate(async () => {
      const root = await navigator.storage.getDirectory();
      const folder = await root.getDirectoryHandle('passes');
      for await (const [name, handle] of folder as unknown as AsyncIterable<[string, FileSystemFileHandle]>) {
        if (!name.endsWith('.speech.json')) continue;
        const text = await (await handle.getFile()).text();
        return (JSON.parse(text) as { spans: { from: number; to: number }[] }).spans.map(({ from }) => from);
      }
      return [];
    });
    const near = starts.filter((start) => found.some((from) => Math.abs(from - start) <= NEAR));
    expect(near.length / starts.length).toBeGreaterThanOrEqual(SHARE);
    await visitor.page.getByLabel('Script: what is spoken').fill(phrases.join('\n'));
    await visitor.tap('button', 'Lay the script on the speech');
    await visitor.tap('radio', 'Cue');
    await visitor.sees(`${phrases.length} captions`);
    const laid = (await visitor.page.getByText(/^\d\d:\d\d:\d\d:\d\d to /).allInnerTexts()).map((text) => {
      const [, minutes = 0, seconds = 0, frames = 0] = text.slice(0, 11).split(':').map(Number);
      return 60 * minutes + seconds + frames / 25;
    });
    // Each caption begins with a phrase, whichever it is, and most with their own.
    const own = laid.filter((start, i) => Math.abs(start - (starts[i] ?? 0)) < 0.15);
    expect(own.length / starts.length).toBeGreaterThanOrEqual(0.8);
    expect(visitor.errors).toEqual([]);
  });
});
