import { type ChildProcess, spawn } from 'node:child_process';
import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { builtProgram } from '../server/root';

/** The real server, started as `npm run demo` starts it. */
export class TestServer {
  private child: ChildProcess | null = null;
  readonly data = mkdtempSync(path.join(tmpdir(), 'posts-'));

  /** Where phones reach it, once it said so. */
  lan = '';

  constructor(
    private port = 0,
    private readonly more: readonly string[] = [],
  ) {}

  get origin(): string {
    return `http://127.0.0.1:${this.port}`;
  }

  async start(): Promise<void> {
    const own = ['--port', String(this.port), '--data', this.data, ...this.more];
    const args = [builtProgram('main'), ...own];
    const child = spawn(process.execPath, args, { stdio: ['ignore', 'pipe', 'inherit'] });
    this.child = child;
    this.port = await new Promise<number>((resolve, reject) => {
      child.stdout.on('data', (text: Buffer) => {
        const found = /localhost:(\d+)/.exec(text.toString());
        if (found) resolve(Number(found[1]));
        const lan = /Phones in this network reach (\S+)/.exec(text.toString());
        if (lan?.[1]) this.lan = lan[1];
      });
      child.on('exit', () => reject(new Error('the server ended')));
    });
  }

  /** Ends it as a person does, or as a crash does. */
  stop(signal: 'SIGTERM' | 'SIGKILL' = 'SIGTERM'): Promise<void> {
    const child = this.child;
    this.child = null;
    if (!child || child.exitCode !== null) return Promise.resolve();
    return new Promise((resolve) => {
      child.on('exit', () => resolve());
      child.kill(signal);
    });
  }
}
