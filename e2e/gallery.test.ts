import { makeSpoken } from '../tests/make-spoken';
import { atTheApp } from './app';

describe('the gallery of shots', () => {
  const here = atTheApp({ touch: true });

  it('keeps those that are tapped, and takes them out again', async () => {
    const { visitor } = here;
    await visitor.openDemo();
    await visitor.step('Length');
    await visitor.tap('radio', 'Shots');
    const shot = (n: number) => visitor.page.getByRole('checkbox', { name: new RegExp(`^Shot ${n}, from`) });
    await shot(2).tap();
    await shot(4).tap();
    // Two shots of 144 frames.
    await visitor.sees('288 frames');
    expect(await shot(4).getAttribute('aria-checked')).toBe('true');
    await visitor.tap('radio', 'Liveliest first');
    await shot(2).tap();
    await visitor.sees('144 frames');
    await visitor.tap('button', /^Undo: /);
    await visitor.sees('288 frames');
  });

  it('tells where somebody speaks, and takes no animal for a voice', async () => {
    const { visitor } = here;
    const spoken = ['nandou_desc', 'bison_desc', 'mountaingoat_desc'];
    await visitor.page.goto('/');
    await visitor.bringIn(
      makeSpoken([
        ...[0.2, 1.6, 2.8].map((at, i) => ({ recording: spoken[i]!, at })),
        ...[4.2, 5.5, 6.2].map((at, i) => ({ recording: ['dog', 'cow', 'rooster'][i]!, at })),
        { recording: 'seagull_desc', at: 9 },
      ]),
    );
    await visitor.step('Length');
    await visitor.tap('radio', 'Shots');
    const shot = (n: number, words: string) =>
      visitor.page.getByRole('checkbox', { name: new RegExp(`^Shot ${n}, from.*${words}`) });
    await shot(1, 'mostly speech').waitFor({ timeout: 60_000 });
    await shot(2, 'no speech').waitFor();
    await shot(3, 'some speech').waitFor();
    await shot(4, 'no speech').waitFor();
    await visitor.tap('radio', 'Most speech first');
    const [first] = await visitor.page.getByRole('checkbox', { name: /^Shot / }).all();
    expect(await first?.getAttribute('aria-label')).toMatch(/^Shot 1,/);
    // It is known at the next visit, without listening again.
    await visitor.page.reload();
    await visitor.tap('radio', 'Shots');
    await shot(3, 'some speech').waitFor({ timeout: 5000 });
    expect(visitor.errors).toEqual([]);
  });

  it('moves frame by frame under the finger, close to the playhead', async () => {
    const { visitor } = here;
    await visitor.page.goto('/job/kite-day');
    await visitor.step('Length');
    const close = visitor.page.getByRole('slider', { name: 'Frames around the playhead' });
    const frame = async () => Number(await close.getAttribute('aria-valuenow'));
    const from = await frame();
    await close.press('ArrowRight');
    await close.press('PageUp');
    expect(await frame()).toBe(from + 11);
    await close.scrollIntoViewIfNeeded();
    const box = (await close.boundingBox())!;
    // Three seconds across: what is drawn leftward by a third of that is a second, less where the finger settles.
    await visitor.swipe({ x: box.x + box.width / 2, y: box.y + 20 }, -box.width / 3);
    const moved = (await frame()) - from - 11;
    expect(moved).toBeGreaterThan(17);
    expect(moved).toBeLessThanOrEqual(24);
  });
});
