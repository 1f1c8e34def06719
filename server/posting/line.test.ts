import { readFileSync } from 'node:fs';
import type { IncomingMessage, ServerResponse } from 'node:http';
import type { Socket } from 'node:net';
import { type DispatchedPost, postedSchema } from '../../src/core/posting/post-order';
import { postWordsSchema } from '../../src/core/outlets/post-form';
import { makeClip } from '../../tests/make-clip';
import { signIn } from '../../tests/sign-in';
import { soakFigure, trials } from '../../tests/soak';
import { createId } from '../store/create-id';
import { Client, FORM, openTestServer } from '../test-client';

const COUNT = trials(2, 40);
/** Maximum traffic, as a multiple of the files. */
const MAX_TRAFFIC = 1.2;

/** A clip of some megabytes: noise does not compress. */
const clip = readFileSync(
  makeClip('noisy.mp4', {
    size: '1080x1920',
    seconds: 2,
    filter: 'noise=alls=60:allf=t',
    output: ['-c:v', 'libx264', '-preset', 'ultrafast', '-b:v', '24M', '-maxrate', '24M', '-bufsize', '24M'],
  }),
);

describe('uploads on a line that breaks', () => {
  it(`bring ${COUNT} files over with at most ${MAX_TRAFFIC} of their bytes`, async () => {
    const server = await openTestServer();
    const client = new Client(server.origin);
    const account = await signIn(client, 'verrow', 'odlin');
    // Counted where they come in, the lost ones too.
    let came = 0;
    const taken = new WeakMap<Socket, number>();
    server.http.prependListener('request', ({ method, url = '', socket }: IncomingMessage, response) => {
      (response as ServerResponse).on('close', () => {
        if (method === 'PATCH' && url.startsWith('/outlets/'))
          came += socket.bytesRead - (taken.get(socket) ?? 0);
        taken.set(socket, socket.bytesRead);
      });
    });
    await client.fetch('/outlets/verrow/weather', {
      method: 'POST',
      body: new URLSearchParams({ weather: 'dropping' }),
    });
    for (let n = 0; n < COUNT; n++) {
      const upload = await client.upload('/posting/api/uploads', clip);
      const id = createId();
      const words = postWordsSchema.parse({ ...FORM, title: `Kite ${n}` });
      const order = { id, upload, fileName: `${n}.mp4`, outlet: 'verrow', account, words, when: null };
      const headers = { 'content-type': 'application/json' };
      await client.fetch('/posting/api/posts', { method: 'POST', headers, body: JSON.stringify(order) });
    }
    const all = async (): Promise<DispatchedPost[]> => {
      const { posts } = (await (await client.fetch('/posting/api/posts')).json()) as { posts: unknown[] };
      return posts.map((post) => postedSchema.parse(post));
    };
    const isSent = ({ sent, bytes }: DispatchedPost) => sent === bytes;
    while (!(await all()).every(isSent)) await new Promise((resolve) => setTimeout(resolve, 300));
    const share = came / (COUNT * clip.length);
    expect(share).toBeGreaterThanOrEqual(1);
    expect(share).toBeLessThanOrEqual(MAX_TRAFFIC);
    soakFigure(
      'uploads on a line that breaks',
      `${COUNT} files of ${(clip.length / 1e6).toFixed(1)} MB: ${share.toFixed(3)} of their bytes went over it`,
    );
    await server.close();
  }, 900_000);
});
