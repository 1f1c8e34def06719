import { existsSync, readdirSync, readFileSync } from 'node:fs';
import path from 'node:path';
import { conversionPath, conversionSchema, CONVERT_UPLOADS } from '../src/core/convert/protocol';
import type { OutletPost } from '../src/core/outlets/outlet-api';
import { makeClip } from '../tests/make-clip';
import { SEED, seeded, soakFigure, trials } from '../tests/soak';
import { TestServer } from '../tests/test-server';
import { sweep } from './sweep';
import { Client, FORM, openTestServer } from './test-client';

const UPLOADS = '/outlets/verrow/api/uploads';
const TRIALS = trials(2, 50);
const clip = readFileSync(makeClip('killed.mp4', { size: '1080x1920', seconds: 1 }));
const film = readFileSync(makeClip('film.mkv', { seconds: 2, output: ['-c:v', 'mpeg4'] }));
/** Pieces that a file is sent in, so that a kill may fall between two. */
const PIECE = 200_000;
/** When the server is killed, at the latest, in milliseconds: until then all is done. */
const LATEST = 2500;

/** Sends a file from wherever the server has it up to, or anew where it does not know it. */
async function send(client: Client, door: string, file: Buffer, known: string | null): Promise<string> {
  let address = known;
  if (address !== null && (await client.head(address)).status !== 200) address = null;
  address ??= (await client.create(door, file.length)).headers.get('location') ?? '';
  for (;;) {
    const offset = Number((await client.head(address)).headers.get('upload-offset'));
    if (offset === file.length) return address;
    const sent = await client.patch(address, offset, new Uint8Array(file.subarray(offset, offset + PIECE)));
    if (sent.status !== 204) throw new Error(`a piece was refused with ${sent.status}`);
  }
}

/** A person whose clip goes out once, however often the server dies on the way. */
class Sender {
  address: string | null = null;
  answer: OutletPost | null = null;

  constructor(private readonly key: string) {}

  async go(client: Client): Promise<void> {
    await client.signIn('verrow');
    const known = this.address?.split('/').pop();
    // The answer may have been lost: asking again with the same key makes no second post.
    const isPosted = known !== undefined && (await this.post(client, known)).ok;
    if (!isPosted) {
      this.address ??= (await client.create(UPLOADS, clip.length)).headers.get('location');
      this.address = await send(client, UPLOADS, clip, this.address);
    }
    const form = { ...FORM, audience: 'public', upload: this.address?.split('/').pop() };
    this.answer = await client.posted('verrow', form, this.key);
  }

  private post(client: Client, upload: string): Promise<Response> {
    return client.post('verrow', { ...FORM, audience: 'public', upload }, this.key);
  }
}

/** Converts a film. @param begun takes the name of each conversion that was asked for. */
async function convert(client: Client, begun: string[]): Promise<void> {
  const address = await send(client, CONVERT_UPLOADS, film, null);
  const id = address.split('/').pop() ?? '';
  begun.push(id);
  for (let method = 'POST'; ; method = 'GET') {
    const now = conversionSchema.parse(await (await client.fetch(conversionPath(id), { method })).json());
    if (now.state === 'done' || now.state === 'failed') return;
    await new Promise((resolve) => setTimeout(resolve, 20));
  }
}

describe('a server that is killed', () => {
  it(`${TRIALS} times at random moments of uploads, posts and conversions loses and doubles nothing`, async () => {
    const random = seeded(SEED);
    const server = new TestServer();
    const begun: string[] = [];
    let cut = 0;
    for (let trial = 1; trial <= TRIALS; trial++) {
      const sender = new Sender(`trial-${trial}`);
      await server.start();
      const client = new Client(server.origin);
      const work = Promise.allSettled([sender.go(client), convert(client, begun)]);
      await Promise.race([work, new Promise((resolve) => setTimeout(resolve, random() * LATEST))]);
      if (!sender.answer) cut += 1;
      await server.stop('SIGKILL');
      await work;
      await server.start();
      // Each clip is posted and recorded, or still with its sender and goes on.
      await sender.go(new Client(server.origin));
      expect(sender.answer).toMatchObject({ state: 'up' });
      const board = await (await new Client(server.origin).fetch('/outlets/verrow/')).text();
      expect(board.match(/<article/g)).toHaveLength(trial);
      await server.stop();
    }
    soakFigure(
      'server killed',
      `${TRIALS} kills, ${cut} of them before the post was answered: nothing lost, nothing twice`,
    );

    const after = await openTestServer(server.data);
    // A conversion that was cut off goes on when the server starts again; the sweep leaves it alone until it ended.
    const goesOn = (id: string) =>
      ['queued', 'running'].includes(after.swept.conversions.find(id)?.state ?? 'failed');
    while (begun.some(goesOn)) await new Promise((resolve) => setTimeout(resolve, 50));
    await sweep(after.swept, Date.now() + 48 * 3600 * 1000);
    await after.close();
    const filesIn = (...parts: string[]) => readdirSync(path.join(server.data, ...parts));
    // Each as it was sent, and as a viewer gets it.
    expect(filesIn('verrow', 'clips')).toHaveLength(2 * TRIALS);
    for (const folder of [['verrow', 'uploads'], ['convert'], ['converted']])
      expect(filesIn(...folder)).toEqual([]);
  }, 3_600_000);

  it('takes what it started with it', async () => {
    const server = new TestServer();
    await server.start();
    const client = new Client(server.origin);
    const long = readFileSync(
      makeClip('long.mkv', { size: '1920x1080', seconds: 20, output: ['-c:v', 'mpeg4'] }),
    );
    const id = await client.upload(CONVERT_UPLOADS, long);
    await client.fetch(conversionPath(id), { method: 'POST' });
    const running = () =>
      readdirSync('/proc').filter((pid) => {
        const file = `/proc/${pid}/cmdline`;
        return /^\d+$/.test(pid) && existsSync(file) && readFileSync(file, 'utf8').includes(`${id}.mp4`);
      });
    await expect(() => running().length > 0).toBecomeTrue();
    await server.stop('SIGKILL');
    await expect(() => running().length === 0).toBecomeTrue();
  });
});
