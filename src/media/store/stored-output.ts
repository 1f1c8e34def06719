import { Output, type OutputFormat, StreamTarget, type StreamTargetChunk } from 'mediabunny';
import { type Folder, openWriter, type StoredWriter } from './storage';

/** Bytes that the container gathers before it writes: large writes are few. */
const CHUNK_BYTES = 1 << 20;

/** A file that streams into the private file system as it is made. */
export class StoredOutput {
  /** Of the file so far. */
  bytes = 0;
  readonly output: Output;

  private constructor(
    private readonly writer: StoredWriter,
    format: OutputFormat,
  ) {
    const target = new StreamTarget(
      new WritableStream<StreamTargetChunk>({
        write: ({ data, position }) => {
          writer.write(data, position);
          this.bytes = Math.max(this.bytes, position + data.byteLength);
        },
      }),
      { chunked: true, chunkSize: CHUNK_BYTES },
    );
    this.output = new Output({ format, target });
  }

  static async open(folder: Folder, name: string, format: OutputFormat): Promise<StoredOutput> {
    return new StoredOutput(await openWriter(folder, name), format);
  }

  /** Writes what is left; the file has no name yet. */
  finalize(): Promise<void> {
    return this.output.finalize();
  }

  /** Keeps the finished file under its name. */
  keep(): Promise<void> {
    return this.writer.finish();
  }

  /** Leaves nothing behind. */
  async discard(): Promise<void> {
    await this.output.cancel().catch(() => undefined);
    await this.writer.discard().catch(() => undefined);
  }
}
