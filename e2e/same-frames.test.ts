import { createHash } from 'node:crypto';
import { plainFraming } from '@core/framing/framing';
import { makeCanvas } from '@core/layout/canvas';
import { PLAIN_LAYOUT } from '@core/layout/layout';
import { toSource } from '@core/master/source';
import { A_TOUCH, PLAIN_ENCODING } from '@core/rate/encoding';
import { PLAIN_PLACEMENT } from '@core/outlets/plain-placement';
import { toEncodeSettings } from '@core/render/encode-settings';
import { createRenderPlan, type RenderPlan } from '@core/render/plan';
import { NO_TEXT } from '@core/words/clip-text';
import { plainBlock } from '@core/words/text-block';
import { drawSegment } from '../server/render/draw';
import { bundled } from '../tests/bundled';
import { jobOf } from '../tests/create-job';
import { filmed } from '../tests/make-filmed';
import { trials } from '../tests/soak';
import { atTheApp } from './app';

const here = atTheApp();
const FRAMES = trials(12, 200);

describe('frames before the encoder', () => {
  it('are the same bit for bit in the browser and on the server: of a grainy film, tilted, zoomed, sharpened, with words', async () => {
    const { visitor } = here;
    const film = filmed('same', 'null', { from: 0, seconds: FRAMES / 24 + 0.2 });
    await visitor.bringIn(film);
    const [master] = (await jobOf(film)).masters;
    const source = toSource(master!);
    const plain = plainFraming(`${source.id}-1`, 'main', 0);
    const key = plain.keyframes[0]!;
    const framing = {
      ...plain,
      keyframes: [
        { ...key, focus: { x: 0.3, y: 0.4 }, zoom: 1.7, tilt: 3 },
        { ...key, frame: FRAMES - 1, focus: { x: 0.7, y: 0.6 }, zoom: 1.1, tilt: -2 },
      ],
    };
    const canvas = {
      ...makeCanvas(
        null,
        trials({ width: 360, height: 640 }, { width: 720, height: 1280 }),
        source.rate,
        'canvas-1',
      ),
      layout: { ...PLAIN_LAYOUT, kind: 'backdrop' as const },
      encoding: { ...PLAIN_ENCODING, sharpening: A_TOUCH },
    };
    const cut = [{ master: source.id, in: 0, out: FRAMES }];
    const block = { ...plainBlock('words', 'On the river'), fade: 0.5 };
    const text = { ...NO_TEXT, blocks: [block] };
    const plan = createRenderPlan(canvas, { cut, shots: [], framings: [framing], sources: [source], text });
    await visitor.page.evaluate(await bundled('tests/draw-page.ts'));
    const browser = await visitor.page.evaluate(
      (asked) =>
        (globalThis as unknown as { drawnHashes(plan: unknown): Promise<string[]> }).drawnHashes(asked),
      plan as unknown,
    );
    const making = toEncodeSettings(plan, PLAIN_ENCODING, PLAIN_PLACEMENT, { bits: 5e6, reason: 'picture' });
    const server = await hashesOf(plan, { plan, making, masters: { [source.fingerprint]: film } });
    expect(new Set(server).size).toBeGreaterThan(0.95 * FRAMES);
    expect(server).toEqual(browser);
  });
});

async function hashesOf(plan: RenderPlan, order: Parameters<typeof drawSegment>[0]): Promise<string[]> {
  const found: string[] = [];
  await drawSegment(
    order,
    { start: 0, frames: plan.frames },
    (frame) => Promise.resolve(void found.push(createHash('sha256').update(frame).digest('hex'))),
    new AbortController().signal,
  );
  return found;
}
