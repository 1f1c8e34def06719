import { spawn } from 'node:child_process';
import PQueue from 'p-queue';
import type { Tools } from './tools';

/** Limits of an outside program. */
export interface Limits {
  seconds: number;
  /** Address space, in bytes. */
  memory: number;
  /** Size of any file that it writes, in bytes. */
  fileBytes: number;
  /** Maximum output before the program is ended, in bytes. */
  outputBytes: number;
}

/** Why a program did not do its work. */
export class ProgramError extends Error {
  constructor(
    readonly reason: 'missing' | 'busy' | 'slow' | 'talkative' | 'stopped' | 'failed',
    /** Last output of the program. */
    readonly said = '',
  ) {
    super(`an outside program was ${reason}${said ? `: ${said}` : ''}`);
    this.name = 'ProgramError';
  }
}

/** Output of a program. */
export interface ProgramOutput {
  out: string;
  /** The end of what it said of errors. */
  errors: string;
}

export interface RunOptions {
  limits: Limits;
  signal?: AbortSignal;
  /** Told what the program says as it says it. */
  onOut?: (text: string) => void;
}

/** Maximum length of error output that is kept, in characters. */
const MAX_ERRORS = 20_000;
/** How many may wait before the server says that it is busy. */
const MAX_WAITING = 100;

/** Runs outside programs: few at a time, each within limits, and all of them ended with the server. */
export class Programs {
  private readonly queue: PQueue;
  private readonly ends = new AbortController();

  /** @param atOnce how many run side by side. */
  constructor(
    private readonly tools: Tools,
    atOnce: number,
  ) {
    this.queue = new PQueue({ concurrency: atOnce });
  }

  /** @throws ProgramError when it is missing, is refused a place, is stopped, breaks a limit or fails. */
  async run(name: string, args: readonly string[], options: RunOptions): Promise<ProgramOutput> {
    if (!this.tools.ffmpeg) throw new ProgramError('missing');
    if (this.queue.size >= MAX_WAITING) throw new ProgramError('busy');
    const signals = [this.ends.signal, ...(options.signal ? [options.signal] : [])];
    const signal = AbortSignal.any(signals);
    return this.queue.add(() => this.start(name, args, { ...options, signal }), { throwOnTimeout: true });
  }

  /** Ends all that run and all that wait. */
  close(): void {
    this.ends.abort();
  }

  private start(
    name: string,
    args: readonly string[],
    { limits, signal, onOut }: RunOptions & { signal: AbortSignal },
  ): Promise<ProgramOutput> {
    if (signal.aborted) return Promise.reject(new ProgramError('stopped'));
    const [command, ...rest] = [...this.guards(limits), name, ...args] as [string, ...string[]];
    return new Promise((resolve, reject) => {
      const child = spawn(command, rest, { stdio: ['ignore', 'pipe', 'pipe'] });
      const said: ProgramOutput = { out: '', errors: '' };
      let reason: ProgramError['reason'] | null = null;
      const end = (why: ProgramError['reason']) => {
        reason ??= why;
        child.kill('SIGKILL');
      };
      const stop = () => end('stopped');
      const clock = setTimeout(() => end('slow'), limits.seconds * 1000);
      signal.addEventListener('abort', stop);
      child.stdout.setEncoding('utf8').on('data', (text: string) => {
        if (onOut) return onOut(text);
        said.out += text;
        if (said.out.length > limits.outputBytes) end('talkative');
      });
      child.stderr.setEncoding('utf8').on('data', (text: string) => {
        said.errors = (said.errors + text).slice(-MAX_ERRORS);
      });
      const onSettled = () => {
        clearTimeout(clock);
        signal.removeEventListener('abort', stop);
      };
      child.on('error', () => {
        onSettled();
        reject(new ProgramError('missing'));
      });
      child.on('close', (code) => {
        onSettled();
        if (reason !== null || code !== 0)
          reject(new ProgramError(reason ?? 'failed', lastLine(said.errors)));
        else resolve(said);
      });
    });
  }

  /** Builds the command prefix that keeps a program to its limits and ends it with the server. */
  private guards({ memory, fileBytes }: Limits): string[] {
    return [
      ...(this.tools.prlimit ? ['prlimit', `--as=${memory}`, `--fsize=${fileBytes}`, '--core=0'] : []),
      ...(this.tools.setpriv ? ['setpriv', '--pdeathsig', 'KILL'] : []),
    ];
  }
}

const lastLine = (text: string): string => text.trim().split('\n').pop() ?? '';
