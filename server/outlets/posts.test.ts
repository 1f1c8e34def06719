import { execFileSync } from 'node:child_process';
import { readdirSync, readFileSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { type PostAnswer, postPage } from '../../src/core/outlets/post-form';
import { makeClip } from '../../tests/make-clip';
import { openDatabase } from '../store/database';
import { sweep } from '../sweep';
import { Client, FORM, openTestServer, type TestServer } from '../test-client';
import { PostRecords } from './post-records';

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
  client = new Client(server.origin);
});
afterEach(() => server.close());

const answerOf = async (response: Response) => (await response.json()) as PostAnswer & { page: string };
const clips = () => readdirSync(path.join(server.data, 'verrow', 'clips'));
const uploads = () => readdirSync(path.join(server.data, 'verrow', 'uploads'));
/** Looks at the server's records from outside. */
function records<T>(look: (records: PostRecords) => T): T {
  const database = openDatabase(server.data);
  try {
    return look(new PostRecords(database, 'verrow'));
  } finally {
    database.close();
  }
}

describe('an upload', () => {
  it('that is posted three times at once is posted once, and all hear the same', async () => {
    const upload = await client.upload(UPLOADS, good);
    const answers = await Promise.all(
      [1, 2, 3].map(async () => answerOf(await client.post('verrow', { ...FORM, upload }))),
    );
    expect(new Set(answers.map((answer) => JSON.stringify(answer))).size).toBe(1);
    expect(answers[0]?.state).toBe('accepted');
    expect(clips()).toHaveLength(1);
    // The answer was lost on the way: asking again makes no second post.
    expect(await answerOf(await client.post('verrow', { ...FORM, upload }))).toEqual(answers[0]);
    expect(clips()).toHaveLength(1);
    expect(uploads()).toEqual([]);
  });

  it('of which a part has arrived is not looked at, and goes on afterwards', async () => {
    const created = await client.create(UPLOADS, good.length);
    const address = created.headers.get('location') ?? '';
    const upload = address.split('/').pop();
    const share = Math.floor(good.length * 0.12);
    await client.patch(address, 0, new Uint8Array(good.subarray(0, share)));
    expect((await client.post('verrow', { ...FORM, upload })).status).toBe(409);
    await client.patch(address, share, new Uint8Array(good.subarray(share)));
    expect((await answerOf(await client.post('verrow', { ...FORM, upload }))).state).toBe('accepted');
  });

  it('that was refused for its words is taken with others, without being sent again', async () => {
    const upload = await client.upload(UPLOADS, good);
    const untagged = { ...FORM, tags: [], upload };
    const first = await answerOf(await client.post('verrow', untagged));
    expect(first).toMatchObject({ state: 'refused' });
    expect(await answerOf(await client.post('verrow', untagged))).toEqual(first);
    expect((await answerOf(await client.post('verrow', { ...FORM, upload }))).state).toBe('accepted');
  });

  it('is shown with the cover that was sent with it, by whoever may see the post', async () => {
    const upload = await client.upload(UPLOADS, good);
    const cover = stillOf(1080, 1920).toString('base64');
    const { page } = await answerOf(await client.post('verrow', { ...FORM, cover, upload }));
    const [, poster = ''] = /poster="([^"]+)"/.exec(await (await client.fetch(page)).text()) ?? [];
    const sent = Buffer.from(await (await client.fetch(poster)).arrayBuffer());
    expect(sent).toEqual(stillOf(1080, 1920));
    expect((await new Client(server.origin).fetch(poster)).status).toBe(404);
    // The answer was lost on the way: the same form is the same post.
    expect((await answerOf(await client.post('verrow', { ...FORM, cover, upload }))).page).toBe(page);
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
    const answer = await answerOf(await client.post('verrow', { ...FORM, cover: cover(), upload }));
    expect(answer).toMatchObject({ state: 'refused', reasons: [expect.stringMatching(reason)] });
    expect((await answerOf(await client.post('verrow', { ...FORM, upload }))).state).toBe('accepted');
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
      const { page } = await answerOf(await client.post('verrow', { ...FORM, audience, upload }));
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

  it('gives its poster a mark that no script can read', async () => {
    const upload = await client.upload(UPLOADS, good);
    const { headers } = await new Client(server.origin).post('verrow', { ...FORM, upload });
    expect(headers.get('set-cookie')).toMatch(/gusset_visitor=[0-9a-f]{32};.*HttpOnly; SameSite=Strict/);
  });
});

describe('a server that ended in the middle', () => {
  async function again(): Promise<void> {
    const { data } = server;
    await server.close();
    server = await openTestServer(data);
    client = new Client(server.origin);
  }

  it('carries a clip through that it had taken and not yet moved', async () => {
    const upload = await client.upload(UPLOADS, good);
    const id = '123e4567-e89b-42d3-a456-426614174000';
    records((all) => {
      all.begin({ ...FORM, audience: 'public', upload }, id, 'f'.repeat(32));
      all.take(upload, 'measured');
    });
    await again();
    expect(clips()).toEqual([`${id}.mp4`]);
    expect((await client.fetch(postPage('verrow', id))).status).toBe(200);
    expect(await answerOf(await client.post('verrow', { ...FORM, upload }))).toEqual({
      state: 'accepted',
      page: postPage('verrow', id),
    });
  });

  it('looks again at an upload that it was looking at', async () => {
    const upload = await client.upload(UPLOADS, good);
    records((all) =>
      all.begin({ ...FORM, audience: 'public', upload }, '123e4567-e89b-42d3-a456-426614174000', ''),
    );
    await again();
    expect((await answerOf(await client.post('verrow', { ...FORM, upload }))).state).toBe('accepted');
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
    client = new Client(server.origin);
    const upload = await client.upload(UPLOADS, good);
    expect((await answerOf(await client.post('verrow', { ...FORM, upload }))).state).toBe('accepted');
  });
});

describe('the sweep', () => {
  const day = 24 * 3600 * 1000;

  it('deletes uploads that nobody came back for, what was refused, and files without a record', async () => {
    await client.upload(UPLOADS, good);
    await client.create(UPLOADS, 1000);
    const refused = await client.upload(UPLOADS, Buffer.from('words'));
    await client.post('verrow', { ...FORM, upload: refused });
    await sweep(server.swept);
    expect(uploads()).toHaveLength(3);
    await sweep(server.swept, Date.now() + 2 * day);
    expect(uploads()).toEqual([]);
    expect(records((all) => all.ofUpload(refused))).toBeNull();
  });

  it('leaves posts alone', async () => {
    const upload = await client.upload(UPLOADS, good);
    const { page } = await answerOf(await client.post('verrow', { ...FORM, upload }));
    writeFileSync(path.join(server.data, 'verrow', 'clips', 'stray.mp4'), 'x');
    await sweep(server.swept, Date.now() + 400 * day);
    expect(clips()).toHaveLength(1);
    expect((await client.fetch(page)).status).toBe(200);
  });
});
