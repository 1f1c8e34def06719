import { execFileSync, spawn } from 'node:child_process';
import { chmodSync, chownSync, mkdtempSync, readdirSync, readFileSync, truncateSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { conversionPath, conversionSchema, CONVERT_UPLOADS } from '../src/core/convert/protocol';
import { makeClip } from '../tests/make-clip';
import { ConversionRecords } from './convert/conversion-records';
import { Conversions } from './convert/conversions';
import { type ProgramError, Programs, type RunOptions, type ProgramOutput } from './programs/programs';
import { findTools } from './programs/tools';
import { builtProgram } from './root';
import { Client, openTestServer } from './test-client';
import { openDatabase } from './store/database';
import { UploadEndpoint } from './uploads/upload-endpoint';
import { closeWorkshop, openWorkshop } from './workshop';

const UPLOADS = '/outlets/verrow/api/uploads';
/** Only root may make a small disk, and act as somebody who may not write. */
const itAsRoot = process.getuid?.() === 0 ? it : it.skip;
const film = readFileSync(makeClip('film.mkv', { seconds: 1, output: ['-c:v', 'mpeg4'] }));

async function stateOf(client: Client, id: string) {
  for (let method = 'POST'; ; method = 'GET') {
    const now = conversionSchema.parse(await (await client.fetch(conversionPath(id), { method })).json());
    if (now.state === 'done' || now.state === 'failed') return now;
    await new Promise((resolve) => setTimeout(resolve, 20));
  }
}

describe('a full disk', () => {
  itAsRoot('is not kept from more by what came already of an upload', async () => {
    const folder = mkdtempSync(path.join(tmpdir(), 'half-'));
    execFileSync('mount', ['-t', 'tmpfs', '-o', 'size=168m', 'tmpfs', folder]);
    const server = await openTestServer(folder);
    try {
      const client = new Client(server.origin);
      const begun = await client.create(CONVERT_UPLOADS, 24e6);
      // More than half of the room is promised.
      expect((await client.create(CONVERT_UPLOADS, 24e6)).status).toBe(507);
      const address = begun.headers.get('location') ?? '';
      expect((await client.patch(address, 0, new Uint8Array(20e6))).status).toBe(204);
      expect((await client.create(CONVERT_UPLOADS, 12e6)).status).toBe(201);
    } finally {
      await server.close();
      execFileSync('umount', ['-l', folder]);
    }
  });

  itAsRoot('takes no upload that it has no room for, and says so', async () => {
    const folder = mkdtempSync(path.join(tmpdir(), 'small-'));
    execFileSync('mount', ['-t', 'tmpfs', '-o', 'size=140m', 'tmpfs', folder]);
    const server = await openTestServer(folder);
    try {
      const client = await new Client(server.origin).signIn('verrow');
      expect((await client.create(UPLOADS, 100e6)).status).toBe(507);
      expect((await client.create(UPLOADS, 5e6)).status).toBe(201);
      const id = await client.upload(CONVERT_UPLOADS, film);
      execFileSync('fallocate', ['-l', '20M', path.join(folder, 'fill')]);
      expect(await stateOf(client, id)).toEqual({ state: 'failed', fault: 'no-room' });
      expect(readdirSync(path.join(folder, 'converted'))).toEqual([]);
      expect((await client.fetch('/outlets/verrow/')).status).toBe(200);
    } finally {
      await server.close();
      execFileSync('umount', ['-l', folder]);
    }
  });

  it('that leaves a broken copy makes the conversion fail, and its source is kept', async () => {
    /** Cuts off what a conversion wrote, as a disk does that was full before the end, and calls it a success. */
    class Spoiling extends Programs {
      override async run(name: string, args: readonly string[], options: RunOptions): Promise<ProgramOutput> {
        const said = await super.run(name, args, options);
        const made = args[args.length - 1] ?? '';
        if (name === 'ffmpeg') truncateSync(made, 2000);
        return said;
      }
    }
    const server = await openTestServer();
    const client = new Client(server.origin);
    const id = await client.upload(CONVERT_UPLOADS, film);
    await server.close();
    const workshop = await openWorkshop(server.data);
    const door = new UploadEndpoint(path.join(server.data, 'convert'), workshop.database, 'convert');
    const conversions = new Conversions(
      new ConversionRecords(workshop.database),
      door,
      path.join(server.data, 'converted'),
      workshop.looks,
      new Spoiling(await findTools(), 1),
    );
    conversions.begin(id);
    await expect(() => conversions.find(id)?.state === 'failed').toBecomeTrue();
    expect(readdirSync(path.join(server.data, 'converted'))).toEqual([]);
    expect(readdirSync(path.join(server.data, 'convert'))).toEqual([id]);
    await closeWorkshop(workshop);
  });
});

describe('a folder that may not be written', () => {
  const asNobody = (data: string) =>
    spawn(
      'setpriv',
      [
        '--reuid=65534',
        '--clear-groups',
        process.execPath,
        builtProgram('main'),
        '--port',
        '0',
        '--data',
        data,
      ],
      { stdio: ['ignore', 'pipe', 'pipe'], env: { ...process.env, HOME: data } },
    );

  itAsRoot('is told of in words when the server starts', async () => {
    const data = mkdtempSync(path.join(tmpdir(), 'locked-'));
    chmodSync(data, 0o555);
    const child = asNobody(data);
    let said = '';
    child.stderr.setEncoding('utf8').on('data', (text: string) => (said += text));
    const code = await new Promise((resolve) => child.on('exit', resolve));
    expect(code).toBe(1);
    expect(said).toMatch(/cannot be used for what is posted/);
    expect(said).toMatch(/--data FOLDER/);
  });

  itAsRoot('fails what needs it, and the server goes on', async () => {
    const data = mkdtempSync(path.join(tmpdir(), 'locking-'));
    chownSync(data, 65_534, 65_534);
    const child = asNobody(data);
    try {
      const origin = await new Promise<string>((resolve) =>
        child.stdout.setEncoding('utf8').on('data', (text: string) => {
          const port = /localhost:(\d+)/.exec(text)?.[1];
          if (port) resolve(`http://127.0.0.1:${port}`);
        }),
      );
      const client = await new Client(origin).signIn('verrow');
      const folders = readdirSync(data, { recursive: true, withFileTypes: true }).filter((dirent) =>
        dirent.isDirectory(),
      );
      for (const { parentPath, name } of folders) execFileSync('chown', ['0', path.join(parentPath, name)]);
      for (const { parentPath, name } of folders) chmodSync(path.join(parentPath, name), 0o555);
      for (const door of [UPLOADS, CONVERT_UPLOADS]) {
        expect((await client.create(door, 100)).status).toBeGreaterThanOrEqual(500);
        expect((await client.fetch('/outlets/verrow/')).status).toBe(200);
      }
      expect(child.exitCode).toBeNull();
    } finally {
      child.kill('SIGKILL');
    }
  });
});

describe('a database that another process locks', () => {
  it('does not keep a server from ending', async () => {
    const data = mkdtempSync(path.join(tmpdir(), 'held-'));
    const child = spawn(process.execPath, [builtProgram('main'), '--port', '0', '--data', data], {
      stdio: ['ignore', 'pipe', 'inherit'],
    });
    await new Promise((resolve) => child.stdout.once('data', resolve));
    const other = openDatabase(data);
    other.exec('begin exclusive');
    child.kill('SIGTERM');
    const code = await new Promise((resolve) => child.on('exit', resolve));
    expect(code).toBe(0);
    other.exec('rollback');
    other.close();
  });
});

describe('an outside program', () => {
  const limits = { seconds: 20, memory: 2e9, fileBytes: 1e6, outputBytes: 1000 };
  const noise = ['-v', 'error', '-f', 'lavfi', '-i', 'nullsrc=s=640x480,geq=random(1)*255:128:128'];
  let programs: Programs;
  beforeAll(async () => {
    programs = new Programs(await findTools(), 1);
  });
  afterAll(() => programs.close());
  const reasonOf = (args: string[], more: Partial<RunOptions> = {}) =>
    programs.run('ffmpeg', args, { limits, ...more }).then(
      () => null,
      (error: ProgramError) => error.reason,
    );

  it('is ended when it takes too long', async () => {
    expect(await reasonOf([...noise, '-f', 'null', '-'], { limits: { ...limits, seconds: 0.3 } })).toBe(
      'slow',
    );
  });

  it('is ended when it says too much', async () => {
    expect(await reasonOf([...noise, '-t', '1', '-f', 'rawvideo', 'pipe:1'])).toBe('talkative');
  });

  it('is ended when it is asked to stop, also while it waits', async () => {
    const stop = new AbortController();
    const both = [1, 2].map(() => reasonOf([...noise, '-f', 'null', '-'], { signal: stop.signal }));
    setTimeout(() => stop.abort(), 200);
    expect(await Promise.all(both)).toEqual(['stopped', 'stopped']);
  });

  it('cannot write a file past its size, nor take memory past its share', async () => {
    const file = path.join(mkdtempSync(path.join(tmpdir(), 'limit-')), 'large.raw');
    expect(await reasonOf([...noise, '-t', '1', '-f', 'rawvideo', file])).toBe('failed');
    const huge = [
      '-v',
      'error',
      '-f',
      'lavfi',
      '-i',
      'color=s=12000x12000',
      '-frames:v',
      '1',
      '-f',
      'null',
      '-',
    ];
    // Some builds fail at once, and some try until their time is up.
    expect(await reasonOf(huge, { limits: { ...limits, seconds: 3, memory: 3e8 } })).not.toBeNull();
  });

  it('that is not there is said to be missing', async () => {
    const none = new Programs({ ffmpeg: false, prlimit: false, setpriv: false }, 1);
    await expect(none.run('ffmpeg', [], { limits })).rejects.toMatchObject({ reason: 'missing' });
  });
});
