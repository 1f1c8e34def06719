import { type ChildProcessWithoutNullStreams, spawn } from 'node:child_process';
import { createInterface } from 'node:readline';
import {
  type EncodedAudioPacketSource,
  type EncodedPacket,
  type EncodedVideoPacketSource,
  MkvOutputFormat,
  Output,
  StreamTarget,
  type StreamTargetChunk,
} from 'mediabunny';
import { Buffers } from './buffers';

/** Facts of a piece that ffmpeg decoded, as it prints them, and its number of bytes. */
export interface DecodedPieceInfo {
  /** Seconds of the stream that went in. */
  time: number;
  bytes: number;
}

/** How the lines of a filter of ffmpeg are read that tells of each piece. */
export interface InfoPattern<Piece extends DecodedPieceInfo> {
  /** Arguments of ffmpeg between its input and its output. */
  args: readonly string[];
  /** Reads a line. @param last the piece told last, to which it may add. @returns a new piece, or null. */
  read(line: string, last: Piece | undefined): Piece | null;
  /** Tells whether all facts of a piece are known. */
  isTold(piece: Piece): boolean;
}

/** Matroska knows no times before zero: what comes first is put here, in seconds. */
const FIRST = 1;

/**
 * Arguments that make the first frames come out before much has gone in, since whoever gives the packets
 * waits for them: the stream is not probed beforehand, and frames are reordered by H.264's maximum, not by
 * what was seen of them.
 */
const AT_ONCE = ['-probesize', '32', '-analyzeduration', '1', '-fpsprobesize', '0', '-strict', 'strict'];

/**
 * Decodes one track with ffmpeg: packets go in as a Matroska stream, raw pieces come out, and what each of them is on
 * the side. Whoever opens it closes it.
 */
export class PipeDecoder<Piece extends DecodedPieceInfo> {
  private child: ChildProcessWithoutNullStreams | null = null;
  private output: Output | null = null;
  private readonly stamps: number[] = [];
  private offset: number | null = null;
  private readonly told: Piece[] = [];
  private pieces: Buffer[] = [];
  private held = 0;
  private ended = Promise.resolve();
  private failure: Error | null = null;
  private source: EncodedVideoPacketSource | EncodedAudioPacketSource | null = null;

  /** @param take gets each piece with the stamp of its packet. */
  constructor(
    private readonly newSource: (output: Output) => EncodedVideoPacketSource | EncodedAudioPacketSource,
    private readonly config: object,
    private readonly telling: InfoPattern<Piece>,
    private readonly take: (piece: Piece, data: Uint8Array<ArrayBuffer>, timestamp: number) => void,
    private readonly buffers = new Buffers(),
  ) {}

  async open(): Promise<void> {
    const child = spawn('ffmpeg', [
      ...['-v', 'info', '-nostats', '-hide_banner', '-copyts', ...AT_ONCE],
      ...['-f', 'matroska', '-i', 'pipe:0', ...this.telling.args, 'pipe:1'],
    ]);
    this.child = child;
    child.on('error', (error) => (this.failure ??= error));
    // It ends before all was written where it fails; that is told by what is missing.
    child.stdin.on('error', () => undefined);
    const lines = createInterface({ input: child.stderr }).on('line', (line) => this.hear(line));
    const read = new Promise<void>((resolve) => lines.on('close', resolve));
    child.stdout.on('data', (piece: Buffer) => this.see(piece));
    const closed = new Promise<void>((resolve) => child.on('close', () => resolve()));
    this.ended = Promise.all([read, closed]).then(() => undefined);
    const target = new WritableStream<StreamTargetChunk>({ write: ({ data }) => written(child.stdin, data) });
    this.output = new Output({
      format: new MkvOutputFormat({ appendOnly: true, minimumClusterDuration: 0 }),
      target: new StreamTarget(target),
    });
    this.source = this.newSource(this.output);
    await this.output.start();
  }

  /** @throws what went wrong with an earlier one. */
  async decode(packet: EncodedPacket): Promise<void> {
    this.throwFailure();
    this.offset ??= packet.timestamp - FIRST;
    this.stamps.push(packet.timestamp);
    const shifted = packet.clone({ timestamp: Math.max(0, packet.timestamp - this.offset) });
    await this.source?.add(shifted, {
      decoderConfig: this.config as VideoDecoderConfig & AudioDecoderConfig,
    });
  }

  /** Resolves when all that was given is decoded; more may follow. */
  async flush(): Promise<void> {
    await this.end();
    this.stamps.length = 0;
    this.offset = null;
    this.told.length = this.held = 0;
    this.pieces = [];
    await this.open();
  }

  private async end(): Promise<void> {
    this.throwFailure();
    await this.output?.finalize();
    this.output = null;
    this.child?.stdin.end();
    await this.ended;
    this.throwFailure();
  }

  close(): void {
    void this.output?.cancel().catch(() => undefined);
    this.child?.kill('SIGKILL');
  }

  private throwFailure(): void {
    if (this.failure) throw this.failure;
  }

  private hear(line: string): void {
    try {
      const piece = this.telling.read(line, this.told[this.told.length - 1]);
      if (piece) this.told.push(piece);
    } catch (error) {
      // Told to whoever decodes next, or waits for the end.
      this.failure ??= error as Error;
      this.child?.kill('SIGKILL');
    }
    this.give();
  }

  private see(piece: Buffer): void {
    this.pieces.push(piece);
    this.held += piece.length;
    this.give();
  }

  /** Gives pieces whose facts and bytes are both there. */
  private give(): void {
    for (let [piece] = this.told; piece && this.telling.isTold(piece); [piece] = this.told) {
      if (this.held < piece.bytes) return;
      this.told.shift();
      this.take(piece, this.bytes(piece.bytes), this.toTimestamp(piece.time));
    }
  }

  private bytes(size: number): Uint8Array<ArrayBuffer> {
    const whole = this.buffers.take(size);
    for (let at = 0; at < size;) {
      const piece = this.pieces[0] as Buffer;
      const part = piece.subarray(0, size - at);
      whole.set(part, at);
      at += part.length;
      if (part.length === piece.length) this.pieces.shift();
      else this.pieces[0] = piece.subarray(part.length);
    }
    this.held -= size;
    return whole;
  }

  /** The stamp of the packet that a piece came of: Matroska's are rounded. */
  private toTimestamp(time: number): number {
    const wanted = time + (this.offset ?? 0);
    return this.stamps.reduce((near, stamp) =>
      Math.abs(stamp - wanted) < Math.abs(near - wanted) ? stamp : near,
    );
  }
}

/** Writes to a program; resolves when it takes more, or none any more. */
function written(to: NodeJS.WritableStream & { destroyed?: boolean }, data: Uint8Array): Promise<void> {
  return new Promise((resolve) => {
    if (to.destroyed || to.write(data)) return resolve();
    const go = () => {
      to.off('drain', go).off('close', go);
      resolve();
    };
    to.on('drain', go).on('close', go);
  });
}
