import { spawn } from 'node:child_process';

/** Maximum length of an encoder's output that is kept, in characters. */
const MAX_SAID = 4000;

/** An encoder of ffmpeg that raw frames or samples are written to. */
export class EncodeRun {
  private readonly child;
  private said = '';
  private readonly ended: Promise<number | null>;

  /** @param args all that ffmpeg is given, its output among them. @param onFrame is told pictures that are encoded. */
  constructor(args: readonly string[], onFrame?: (done: number) => void) {
    const quiet = ['-y', '-v', 'error', '-nostats', '-progress', 'pipe:1'];
    this.child = spawn('ffmpeg', [...quiet, ...args], { stdio: ['pipe', 'pipe', 'pipe'] });
    this.child.stdout.setEncoding('utf8').on('data', (text: string) => {
      const done = [...text.matchAll(/^frame=(\d+)/gm)].pop()?.[1];
      if (done !== undefined) onFrame?.(Number(done));
    });
    this.child.stdin.on('error', () => undefined);
    this.child.stderr.setEncoding('utf8').on('data', (text: string) => {
      this.said = (this.said + text).slice(-MAX_SAID);
    });
    this.ended = new Promise((resolve, reject) => {
      this.child.on('close', resolve);
      this.child.on('error', reject);
    });
    this.ended.catch(() => undefined);
  }

  /** Resolves when the encoder has it; it is not to be changed before. */
  write(data: Uint8Array): Promise<void> {
    return new Promise((resolve) => this.child.stdin.write(data, () => resolve()));
  }

  /** Resolves when all is encoded. @throws with what ffmpeg said. */
  async finish(): Promise<void> {
    this.child.stdin.end();
    const code = await this.ended;
    if (code !== 0) throw new Error(`ffmpeg could not encode: ${this.said.trim().split('\n').pop() ?? ''}`);
  }

  /** Ends it at once. */
  stop(): void {
    this.child.kill('SIGKILL');
  }
}
