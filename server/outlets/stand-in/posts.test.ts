import { execFileSync } from 'node:child_process';
import { mkdtempSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import type { OutletPost } from '../../../src/core/outlets/outlet-api';
import { postFormSchema, postPage } from '../../../src/core/outlets/post-form';
import { makeClip, probe } from '../../../tests/make-clip';
import { outletToken } from '../../../tests/sign-in';
import { openDatabase } from '../../store/database';
import { sweep } from '../../sweep';
import { Client, FORM, openTestServer, type TestServer } from '../../test-client';
import { TakenPosts } from './taken-posts';

const UPLOADS = '/outlets/verrow/api/uploads';
const good = readFileSync(makeClip('good.mp4', { size: '1080x1920', seconds: 1 }));
/** A JPEG of a size. */
const stillOf = (width: number, height: number): Buffer =>
  execFileSync('ffmpeg', [
    ...['-v', 'error', '-f', 'lavfi', '-i', `testsrc2=s=${width}x${height}`, '-frames:v', '1'],
    ...['-f', 'mjpeg', '-'],
  ]);
let server: TestServer;
let client: Client;

beforeEach(async () => {
  server = await openTestServer();
  client = await new Client(server.origin).signIn('verrow');
});
afterEach(() => server.close());

const pageOf = (post: OutletPost): string => ('page' in post ? `/outlets/verrow${post.page}` : '');
const clips = () => readdirSync(path.join(server.data, 'verrow', 'clips'));
const uploads = () => readdirSync(path.join(server.data, 'verrow', 'uploads'));
/** Looks at the server's records from outside. */
function records<T>(look: (records: TakenPosts) => T): T {
  const database = openDatabase(server.data);
  try {
    return look(new TakenPosts(database, 'verrow'));
  } finally {
    database.close();
  }
}

describe('an upload', () => {
  it('that is posted three times at once with one key is one post, and all hear the same', async () => {
    const upload = await client.upload(UPLOADS, good);
    const answers = await Promise.all(
      [1, 2, 3].map(() => client.posted('verrow', { ...FORM, upload }, 'one')),
    );
    expect(new Set(answers.map((answer) => JSON.stringify(answer))).size).toBe(1);
    expect(answers[0]?.state).toBe('up');
    expect(clips()).toHaveLength(2);
    // The answer was lost on the way: asking again makes no second post.
    expect(await client.posted('verrow', { ...FORM, upload }, 'one')).toEqual(answers[0]);
    expect(clips()).toHaveLength(2);
    expect(uploads()).toEqual([]);
  });

  it('is posted once, whatever keys it is posted with; and a key is of one post', async () => {
    const upload = await client.upload(UPLOADS, good);
    expect((await client.post('verrow', { ...FORM, upload }, 'first')).status).toBe(202);
    expect((await client.post('verrow', { ...FORM, upload }, 'second')).status).toBe(404);
    const other = await client.upload(UPLOADS, good);
    expect((await client.post('verrow', { ...FORM, upload: other }, 'first')).status).toBe(422);
    expect((await client.post('verrow', { ...FORM, upload: other }, '')).status).toBe(400);
    // Another account's keys are its own.
    await client.signIn('verrow', 'windle');
    expect((await client.posted('verrow', { ...FORM, upload: other }, 'first')).state).toBe('up');
  });

  it('of which a part has arrived is not looked at, and goes on afterwards', async () => {
    const created = await client.create(UPLOADS, good.length);
    const address = created.headers.get('location') ?? '';
    const upload = address.split('/').pop();
    const share = Math.floor(good.length * 0.12);
    await client.patch(address, 0, new Uint8Array(good.subarray(0, share)));
    expect((await client.post('verrow', { ...FORM, upload })).status).toBe(409);
    await client.patch(address, share, new Uint8Array(good.subarray(share)));
    expect((await client.posted('verrow', { ...FORM, upload })).state).toBe('up');
  });

  it('that was refused for its words is taken with others, without being sent again', async () => {
    const upload = await client.upload(UPLOADS, good);
    const untagged = { ...FORM, tags: [], upload };
    const first = await client.posted('verrow', untagged, 'untagged');
    expect(first).toMatchObject({ state: 'refused' });
    expect(await client.posted('verrow', untagged, 'untagged')).toEqual(first);
    expect((await client.posted('verrow', { ...FORM, upload })).state).toBe('up');
  });

  it('is shown with the cover that was sent with it, by whoever may see the post', async () => {
    const upload = await client.upload(UPLOADS, good);
    const cover = stillOf(1080, 1920).toString('base64');
    const page = pageOf(await client.posted('verrow', { ...FORM, cover, upload }, 'covered'));
    const [, poster = ''] = /poster="([^"]+)"/.exec(await (await client.fetch(page)).text()) ?? [];
    const sent = Buffer.from(await (await client.fetch(poster)).arrayBuffer());
    expect(sent).toEqual(stillOf(1080, 1920));
    expect((await new Client(server.origin).fetch(poster)).status).toBe(404);
    // The answer was lost on the way: the same form is the same post.
    expect(pageOf(await client.posted('verrow', { ...FORM, cover, upload }, 'covered'))).toBe(page);
  });

  it.each<[string, () => string, RegExp]>([
    ['of another size', () => stillOf(640, 640).toString('base64'), /The cover is 640×640, not 1080×1920/],
    [
      'that is no picture',
      () => Buffer.from('not a picture').toString('base64'),
      /not a picture that can be read/,
    ],
    ['that is a film', () => good.toString('base64'), /not a picture that can be read/],
  ])('is refused with a cover %s, and leaves none', async (_, cover, reason) => {
    const upload = await client.upload(UPLOADS, good);
    const answer = await client.posted('verrow', { ...FORM, cover: cover(), upload });
    expect(answer).toMatchObject({ state: 'refused', reasons: [expect.stringMatching(reason)] });
    expect((await client.posted('verrow', { ...FORM, upload })).state).toBe('up');
  });

  it('is promised room only while there is some', async () => {
    expect((await client.create(UPLOADS, 200e6)).status).toBe(201);
    expect((await client.create('/convert/uploads', 60e15)).status).toBe(413);
    const promised = await Promise.all(
      Array.from({ length: 4 }, () => client.create('/convert/uploads', 63e9)),
    );
    expect(promised.map(({ status }) => status)).toContain(507);
    expect(
      (
        await client.fetch(UPLOADS, {
          method: 'POST',
          headers: { 'tus-resumable': '1.0.0', 'upload-defer-length': '1' },
        })
      ).status,
    ).toBe(400);
  });
});

describe('a post', () => {
  it.each([
    ['private', false, false],
    ['unlisted', false, true],
    ['public', true, true],
  ])(
    'that is %s is seen by others on the board: %s, with its address: %s',
    async (audience, listed, linked) => {
      const upload = await client.upload(UPLOADS, good);
      const page = pageOf(await client.posted('verrow', { ...FORM, audience, upload }));
      const other = new Client(server.origin);
      const clip = page.replace('/posts/', '/clips/') + '.mp4';
      expect((await (await other.fetch('/outlets/verrow/')).text()).includes('A &lt;kite&gt;')).toBe(listed);
      expect((await other.fetch(page)).status).toBe(linked ? 200 : 404);
      expect((await other.fetch(clip)).status).toBe(linked ? 200 : 404);
      // Whoever posted it sees it always.
      expect(await (await client.fetch('/outlets/verrow/')).text()).toContain('A &lt;kite&gt;');
      expect((await client.fetch(page)).status).toBe(200);
      expect((await client.fetch(clip)).status).toBe(200);
    },
  );

  it('is changed and taken down by its own account alone', async () => {
    const upload = await client.upload(UPLOADS, good);
    const post = await client.posted('verrow', { ...FORM, upload });
    const at = `/outlets/verrow/api/posts/${post.id}`;
    const publish = (who: Client, audience = 'public') =>
      who.fetch(at, {
        method: 'PATCH',
        headers: { 'content-type': 'application/json' },
        body: JSON.stringify({ audience }),
      });
    const other = await new Client(server.origin).signIn('verrow', 'windle');
    expect((await other.fetch(at)).status).toBe(404);
    expect((await publish(other)).status).toBe(404);
    expect((await other.fetch(at, { method: 'DELETE' })).status).toBe(404);
    expect((await other.fetch(`${at}/viewed`)).status).toBe(404);
    expect((await publish(client, 'everybody')).status).toBe(400);
    expect(await (await publish(client)).json()).toMatchObject({ state: 'up', audience: 'public' });
    expect((await new Client(server.origin).fetch(pageOf(post))).status).toBe(200);
    expect((await client.fetch(at, { method: 'DELETE' })).status).toBe(204);
    expect((await client.fetch(pageOf(post))).status).toBe(404);
    expect(clips()).toEqual([]);
  });

  it('is compressed to the outlet’s ladder before it is shown', async () => {
    const upload = await client.upload(UPLOADS, good);
    const post = await client.posted('verrow', { ...FORM, upload });
    const viewed = path.join(mkdtempSync(path.join(tmpdir(), 'viewed-')), 'viewed.mp4');
    const response = await client.fetch(`/outlets/verrow/api/posts/${post.id}/viewed`);
    writeFileSync(viewed, Buffer.from(await response.arrayBuffer()));
    const [video] = probe(viewed);
    expect(post).toMatchObject({ viewed: { width: video?.width, height: video?.height } });
    expect(video).toMatchObject({ codec_name: 'h264', width: 1080, height: 1920 });
  });
});

describe('who may speak to an outlet', () => {
  const asked = (token: string | null) =>
    fetch(`${server.origin}/outlets/verrow/api/account`, {
      headers: token === null ? {} : { authorization: token },
    });

  it('is whoever has a token that is good, and a scope for what it asks', async () => {
    expect((await asked(null)).status).toBe(401);
    expect((await asked('Bearer made-up')).status).toBe(401);
    expect((await asked('Basic b2RsaW46a2l0ZS1kYXk=')).status).toBe(401);
    const reads = await outletToken(new Client(server.origin), 'verrow', 'fen', ['read']);
    expect(await (await asked(`Bearer ${reads}`)).json()).toMatchObject({ id: 'fen', kind: 'person' });
    const begun = await fetch(`${server.origin}${UPLOADS}`, {
      method: 'POST',
      headers: { authorization: `Bearer ${reads}`, 'tus-resumable': '1.0.0', 'upload-length': '9' },
    });
    expect([begun.status, begun.headers.get('www-authenticate')]).toEqual([
      403,
      'Bearer error="insufficient_scope"',
    ]);
    // One outlet's token is nothing at another.
    const elsewhere = await outletToken(new Client(server.origin), 'tesselle', 'fen');
    expect((await asked(`Bearer ${elsewhere}`)).status).toBe(401);
  });
});

describe('a server that ended in the middle', () => {
  async function again(): Promise<void> {
    const { data } = server;
    await server.close();
    server = await openTestServer(data);
    client = await new Client(server.origin).signIn('verrow');
  }

  it('carries a clip through that it had taken and not yet moved', async () => {
    const upload = await client.upload(UPLOADS, good);
    const id = '123e4567-e89b-42d3-a456-426614174000';
    const form = postFormSchema.parse({ ...FORM, audience: 'public', upload });
    records((all) => {
      all.begin(form, id, 'odlin', 'moving');
      all.take(id, '1080×1920, measured');
    });
    await again();
    expect(await client.posted('verrow', form, 'moving')).toMatchObject({
      state: 'up',
      page: postPage(id),
    });
    expect((await client.fetch(`/outlets/verrow${postPage(id)}`)).status).toBe(200);
    expect(clips()).toEqual([`${id}.mp4`, `${id}.viewed.mp4`]);
  });

  it('looks again at an upload that it was looking at', async () => {
    const upload = await client.upload(UPLOADS, good);
    const form = postFormSchema.parse({ ...FORM, upload });
    records((all) => all.begin(form, '123e4567-e89b-42d3-a456-426614174000', 'odlin', 'looking'));
    await again();
    expect((await client.posted('verrow', form, 'looking')).state).toBe('up');
  });

  it('starts with a damaged database, and keeps that aside', async () => {
    const { data } = server;
    await server.close();
    for (const more of ['-wal', '-shm']) writeFileSync(path.join(data, `gusset.db${more}`), '');
    writeFileSync(path.join(data, 'gusset.db'), 'this is no database '.repeat(500));
    const said = jest.spyOn(console, 'error').mockImplementation(() => undefined);
    server = await openTestServer(data);
    expect(said.mock.calls.join()).toMatch(/is kept as .*damaged-/);
    said.mockRestore();
    client = await new Client(server.origin).signIn('verrow');
    const upload = await client.upload(UPLOADS, good);
    expect((await client.posted('verrow', { ...FORM, upload })).state).toBe('up');
  });
});

describe('the sweep', () => {
  const day = 24 * 3600 * 1000;

  it('deletes uploads that nobody came back for, what was refused, and files without a record', async () => {
    await client.upload(UPLOADS, good);
    await client.create(UPLOADS, 1000);
    const refused = await client.upload(UPLOADS, Buffer.from('words'));
    const { id } = await client.posted('verrow', { ...FORM, upload: refused });
    await sweep(server.swept);
    expect(uploads()).toHaveLength(3);
    await sweep(server.swept, Date.now() + 2 * day);
    expect(uploads()).toEqual([]);
    expect(records((all) => all.withId(id))).toBeNull();
  });

  it('leaves posts alone', async () => {
    const upload = await client.upload(UPLOADS, good);
    // A private one is not shown any more to whoever was signed in that long ago.
    const page = pageOf(await client.posted('verrow', { ...FORM, audience: 'public', upload }));
    writeFileSync(path.join(server.data, 'verrow', 'clips', 'stray.mp4'), 'x');
    await sweep(server.swept, Date.now() + 400 * day);
    expect(clips()).toHaveLength(2);
    expect((await client.fetch(page)).status).toBe(200);
  });
});
