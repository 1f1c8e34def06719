import { readFileSync } from 'node:fs';
import { modelFiles } from './model-files';

const stored = {
  modelTopology: { node: [] },
  weightsManifest: [{ weights: [{ name: 'w', shape: [2, 3], dtype: 'float32' }] }],
};
const JSON_FILE = JSON.stringify(stored);
const WEIGHTS = new Uint8Array(24);

/** Answers of the server, by the last part of an address; a function fails as it is called. */
let served: Record<string, () => Response>;
let kept: Map<string, Response>;
let asked: string[];
beforeEach(() => {
  kept = new Map();
  asked = [];
  served = { 'm.json': () => new Response(JSON_FILE), 'm.bin': () => new Response(WEIGHTS) };
  Object.assign(globalThis, {
    caches: {
      open: () =>
        Promise.resolve({
          match: (url: string) => Promise.resolve(kept.get(url)?.clone()),
          put: (url: string, response: Response) => Promise.resolve(void kept.set(url, response)),
        }),
    },
    fetch: (url: string) => {
      asked.push(url);
      return Promise.resolve().then(() => served[url.split('/').pop() ?? '']!());
    },
  });
});
afterAll(() => {
  delete (globalThis as { caches?: unknown }).caches;
});

describe('the files of a model', () => {
  it('are fetched once, and are there without a server afterwards', async () => {
    expect((await modelFiles('m')).weights.byteLength).toBe(24);
    served = {};
    expect((await modelFiles('m')).stored).toEqual(stored);
    expect(asked).toHaveLength(2);
  });

  it('say that the server is down, and not that the master is damaged', async () => {
    served['m.bin'] = () => {
      throw new TypeError('failed to fetch');
    };
    await expect(modelFiles('m')).rejects.toMatchObject({ trouble: { code: 'server-down' } });
    expect(kept.size).toBe(0);
  });

  it.each([
    ['a page in their place', () => new Response('<!doctype html>')],
    ['half of one', () => new Response(JSON_FILE.slice(0, 20))],
    ['a refusal', () => new Response('no', { status: 503 })],
  ])('are not kept where the server answers with %s', async (_, answer) => {
    served['m.json'] = answer;
    await expect(modelFiles('m')).rejects.toMatchObject({ trouble: { code: 'server-answer' } });
    expect(kept.size).toBe(0);
  });

  it('are not kept where weights are missing, and what was kept broken is fetched again', async () => {
    served['m.bin'] = () => new Response(WEIGHTS.slice(0, 20));
    await expect(modelFiles('m')).rejects.toMatchObject({ trouble: { code: 'server-answer' } });
    kept.set('/models/m.json', new Response('<!doctype html>'));
    kept.set('/models/m.bin', new Response(WEIGHTS));
    served['m.bin'] = () => new Response(WEIGHTS);
    expect((await modelFiles('m')).stored).toEqual(stored);
  });

  it.each(['blazeface', 'centernet'])('that ship are whole: %s', async (name) => {
    const folder = `node_modules/@vladmandic/human/models/${name}`;
    served = {
      [`${name}.json`]: () => new Response(readFileSync(`${folder}.json`)),
      [`${name}.bin`]: () => new Response(readFileSync(`${folder}.bin`)),
    };
    expect((await modelFiles(name)).weights.byteLength).toBeGreaterThan(500_000);
  });
});
