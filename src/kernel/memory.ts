/** A page of WebAssembly's memory, in bytes. */
const PAGE = 65536;
/** SIMD loads read up to this many bytes past a plane's end. */
export const SLACK = 64;

export const alignUp = (value: number, to: number): number => Math.ceil(value / to) * to;

/** A piece of the kernel's memory, in bytes. */
interface Block {
  address: number;
  size: number;
}

/** The memory of a kernel in named blocks. */
export class KernelMemory {
  private top: number;
  private readonly blocks = new Map<string, Block>();
  /** Given up for larger ones. */
  private readonly free: Block[] = [];

  /** @param base the first byte that the module itself does not use. */
  constructor(
    private readonly memory: WebAssembly.Memory,
    base: number,
  ) {
    this.top = alignUp(base, 16);
  }

  get buffer(): ArrayBuffer {
    return this.memory.buffer;
  }

  /** Of all of it. */
  get bytes(): number {
    return this.memory.buffer.byteLength;
  }

  /** Bytes from an address; only valid until the memory grows. */
  at(address: number, size: number): Uint8Array<ArrayBuffer> {
    return new Uint8Array(this.memory.buffer, address, size);
  }

  /** A named block of memory: the same place again while it is large enough, else another, whose room is used again. */
  block(name: string, size: number): number {
    const known = this.blocks.get(name);
    if (known && known.size >= size) return known.address;
    if (known) this.free.push(known);
    const found = this.takeFree(size) ?? this.takeNew(size);
    this.blocks.set(name, found);
    return found.address;
  }

  /** Puts a table into a block of its own. @returns its address. */
  put(name: string, table: Int32Array | Int16Array | Uint8Array): number {
    const address = this.block(name, table.byteLength);
    this.at(address, table.byteLength).set(new Uint8Array(table.buffer, table.byteOffset, table.byteLength));
    return address;
  }

  /** The smallest block that was given up and is large enough. */
  private takeFree(size: number): Block | null {
    const [best] = this.free.filter((block) => block.size >= size).sort((a, b) => a.size - b.size);
    if (!best) return null;
    this.free.splice(this.free.indexOf(best), 1);
    return best;
  }

  private takeNew(size: number): Block {
    const address = this.top;
    this.top = alignUp(address + size, 16);
    const missing = Math.ceil((this.top + SLACK - this.memory.buffer.byteLength) / PAGE);
    if (missing > 0) this.memory.grow(missing);
    return { address, size };
  }
}
