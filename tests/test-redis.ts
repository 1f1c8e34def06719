import { type ChildProcess, spawn } from 'node:child_process';
import { once } from 'node:events';
import { mkdtempSync } from 'node:fs';
import net, { type AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { builtProgram } from '../server/root';

/** A port that nobody listens on. */
async function freePort(): Promise<number> {
  const server = net.createServer().listen(0, '127.0.0.1');
  await once(server, 'listening');
  const { port } = server.address() as AddressInfo;
  server.close();
  await once(server, 'close');
  return port;
}

/** A Redis of our own, from Debian, on loopback; it keeps nothing. */
export class TestRedis {
  private child: ChildProcess | null = null;

  private constructor(private readonly port: number) {}

  get url(): string {
    return `redis://127.0.0.1:${this.port}`;
  }

  static async start(): Promise<TestRedis> {
    const redis = new TestRedis(await freePort());
    await redis.begin();
    return redis;
  }

  /** Ends it, and starts an empty one in its place. */
  async restart(): Promise<void> {
    await this.stop();
    await this.begin();
  }

  async stop(): Promise<void> {
    const child = this.child;
    this.child = null;
    if (!child || child.exitCode !== null) return;
    child.kill();
    await once(child, 'exit');
  }

  private async begin(): Promise<void> {
    const dir = mkdtempSync(path.join(tmpdir(), 'redis-'));
    const args = ['--port', String(this.port), '--bind', '127.0.0.1', '--save', '', '--dir', dir];
    const child = spawn('redis-server', args, { stdio: ['ignore', 'pipe', 'inherit'] });
    this.child = child;
    await new Promise<void>((resolve, reject) => {
      child.on('error', reject);
      child.on('exit', () => reject(new Error('Redis ended')));
      child.stdout.on('data', (text: Buffer) => {
        if (text.includes('Ready to accept connections')) resolve();
      });
    });
  }
}

/** A worker that makes segments, started as `npm run worker` starts it. */
export class TestWorker {
  private child: ChildProcess | null = null;

  constructor(
    private readonly redis: string,
    private readonly folder = mkdtempSync(path.join(tmpdir(), 'worker-')),
  ) {}

  async start(): Promise<this> {
    const args = [builtProgram('worker'), '--parallel', '1', '--folder', this.folder];
    const env = { ...process.env, REDIS_URL: this.redis };
    const child = spawn(process.execPath, args, { env, stdio: ['ignore', 'pipe', 'inherit'] });
    this.child = child;
    await new Promise<void>((resolve, reject) => {
      child.on('exit', () => reject(new Error('the worker ended')));
      child.stdout.on('data', (text: Buffer) => {
        if (text.includes('Ready')) resolve();
      });
    });
    return this;
  }

  /** Ends it as a crash does, or as a person does. */
  async stop(signal: 'SIGKILL' | 'SIGTERM' = 'SIGTERM'): Promise<void> {
    const child = this.child;
    this.child = null;
    if (!child || child.exitCode !== null) return;
    child.kill(signal);
    await once(child, 'exit');
  }
}
