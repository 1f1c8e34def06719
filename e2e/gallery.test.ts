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
});
