import { ReadableStream, TransformStream } from 'node:stream/web';
import { z } from 'zod';
import { TroubleError } from '@core/trouble/trouble';
import { askBytes, askJson } from './server';

// The browser's own, which this surrounding lacks.
Object.assign(globalThis, { ReadableStream, TransformStream });

const SERVER = { who: 'The server', errand: 'post' } as const;

describe('an answer of the server', () => {
  beforeEach(() => {
    jest.useFakeTimers();
    jest
      .spyOn(globalThis, 'fetch')
      .mockImplementation(
        (_address, init) =>
          new Promise((_, reject) =>
            init?.signal?.addEventListener('abort', () => reject(new Error('stopped'))),
          ),
      );
  });
  afterEach(() => jest.useRealTimers());

  /** Asks a server that does not answer, and waits some seconds. */
  async function afterSeconds(seconds: number, body: unknown): Promise<string> {
    let came = 'nothing yet';
    void askJson(SERVER, '/slow', z.unknown(), { method: 'POST', body }).catch((error: unknown) => {
      came = error instanceof TroubleError ? error.trouble.code : String(error);
    });
    await jest.advanceTimersByTimeAsync(seconds * 1000);
    return came;
  }

  it('is waited for as long as a slow line takes to send what was asked with', async () => {
    expect(await afterSeconds(14, { short: true })).toBe('nothing yet');
    expect(await afterSeconds(20, { short: true })).toBe('server-slow');
    // A cover of two megabytes takes 80 s at 200 kb/s.
    const cover = 'x'.repeat(2_000_000);
    expect(await afterSeconds(90, { cover })).toBe('nothing yet');
    expect(await afterSeconds(100, { cover })).toBe('server-slow');
  });

  it('may take longer than that while it comes', async () => {
    const slow = new ReadableStream<Uint8Array>({
      async start(to) {
        for (let n = 0; n < 4; n++) {
          await new Promise((resolve) => setTimeout(resolve, 600_000));
          to.enqueue(new Uint8Array(10));
        }
        to.close();
      },
    });
    const answer = { ok: true, status: 200, body: slow, headers: new Headers() };
    jest.spyOn(globalThis, 'fetch').mockResolvedValue(answer as unknown as Response);
    const whole = askBytes(SERVER, '/long');
    await jest.advanceTimersByTimeAsync(2_400_000);
    expect((await whole).size).toBe(40);
  });
});
