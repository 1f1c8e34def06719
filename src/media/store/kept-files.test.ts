import { freshFile, keptFiles } from './kept-files';

const kept = new Map<string, Response>();
const served = new Map<string, string>();
const asked: string[] = [];

const realFetch = globalThis.fetch;
beforeAll(() => {
  const cache = {
    match: (url: string) => Promise.resolve(kept.get(url)?.clone()),
    put: (url: string, answer: Response) => Promise.resolve(void kept.set(url, answer)),
  };
  Object.assign(globalThis, {
    caches: { open: () => Promise.resolve(cache) },
    fetch: (url: string) => {
      asked.push(url);
      const text = served.get(url);
      return text === undefined ? Promise.reject(new Error('no line')) : Promise.resolve(new Response(text));
    },
  });
});
afterAll(() => {
  globalThis.fetch = realFetch;
});
beforeEach(() => {
  kept.clear();
  served.clear();
  asked.length = 0;
});

const whole = ([bytes]: ArrayBuffer[]) => textOf(bytes as ArrayBuffer);
function textOf(bytes: ArrayBuffer): Promise<string | null> {
  const text = new TextDecoder().decode(bytes);
  return Promise.resolve(text.startsWith('<') ? null : text);
}

describe('files of the server that the browser keeps', () => {
  it('are fetched once, and are there without a server', async () => {
    served.set('/a', 'first');
    expect(await keptFiles(['/a'], 'fonts', whole)).toBe('first');
    served.clear();
    expect(await keptFiles(['/a'], 'fonts', whole)).toBe('first');
    expect(asked).toEqual(['/a']);
  });

  it('are not kept where they are not whole', async () => {
    served.set('/a', '<!doctype html>');
    await expect(keptFiles(['/a'], 'fonts', whole)).rejects.toMatchObject({
      trouble: { code: 'server-answer' },
    });
    expect(kept.size).toBe(0);
  });

  it('are the newest where they change under their name, and the last one without a server', async () => {
    const read = () => freshFile('/index', 'fonts', textOf);
    await expect(read()).rejects.toMatchObject({ trouble: { code: 'server-down' } });
    served.set('/index', 'first');
    expect(await read()).toBe('first');
    served.set('/index', 'second');
    expect(await read()).toBe('second');
    served.clear();
    expect(await read()).toBe('second');
    // A page in its place is not taken for it.
    served.set('/index', '<!doctype html>');
    expect(await read()).toBe('second');
  });
});
