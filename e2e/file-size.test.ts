import { statSync } from 'node:fs';
import { filmed } from '../tests/make-filmed';
import { makeClip } from '../tests/make-clip';
import { drawn, trials } from '../tests/soak';
import { atTheApp } from './app';

/** How far the size that is told may be from what comes out. */
const OFF = 0.15;

describe('the file size that is told before an export', () => {
  const here = atTheApp();

  const films = [
    ['a grainy film', () => filmed('grainy', 'null', { from: 0, seconds: trials(2.5, 7) })],
    ['a film that rests and then moves', () => restless()],
    ['a drawn film', () => makeClip('drawn.mp4', { size: '1280x720', seconds: 9 })],
  ] as const;
  it.each(drawn(films, 1))('is right for %s', async (_, make) => {
    const { visitor } = here;
    await visitor.page.goto('/');
    await visitor.bringIn(make());
    await visitor.resizeCanvas();
    await visitor.step('Export');
    await visitor.sees('Measured by encoding pieces of this clip', 120_000);
    const told = (await visitor.page.getByLabel('Estimated file').textContent()) ?? '';
    const size = Number(/About ([\d.]+) MB/.exec(told)?.[1]) * 1e6;
    await visitor.exportClip();
    const { file } = await visitor.download();
    const { size: made } = statSync(file);
    expect(Math.abs(size / made - 1)).toBeLessThanOrEqual(OFF);
  });
});

/** Five seconds of a still picture, then as much of one that moves, and stillness again. */
function restless(): string {
  const still = "select='lt(n,1)+between(n,120,264)'";
  return filmed('restless', `${still},tpad=start=119:start_mode=clone,setpts=N/24/TB`, {
    from: 0,
    seconds: 12,
  });
}
