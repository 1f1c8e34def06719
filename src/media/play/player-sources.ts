import type { Source } from '@core/master/source';
import { MasterReader } from '../read/master-reader';
import { ReaderPool } from '../read/reader-pool';

/** The sources of a player: readers of their masters, opened when they are wanted, and of the proxies there are. */
export class PlayerSources {
  private sources: Source[] = [];
  private masters = new ReaderPool([]);
  private proxies: (MasterReader | null)[] = [];

  get count(): number {
    return this.sources.length;
  }

  /** Takes sources in the place of those before; a frame that is still held of those must not be drawn any more. */
  async open(sources: Source[]): Promise<void> {
    this.masters.close();
    for (const proxy of this.proxies) proxy?.close();
    this.sources = sources;
    this.masters = new ReaderPool(sources);
    this.proxies = [];
    await this.findProxies();
  }

  /** Opens the proxies that there are by now. */
  async findProxies(): Promise<void> {
    const { sources } = this;
    const proxies = await Promise.all(
      sources.map((source, i) => this.proxies[i] ?? MasterReader.openProxy(source)),
    );
    // Other sources may have come meanwhile.
    if (sources === this.sources) this.proxies = proxies;
    else for (const proxy of proxies) proxy?.close();
  }

  source(index: number): Source {
    const source = this.sources[index];
    if (!source) throw new RangeError(`the player has no source ${index}`);
    return source;
  }

  toName(index: number): string {
    return this.sources[index]?.fileName ?? 'The master';
  }

  /** @throws TroubleError `master-gone` */
  master(index: number): Promise<MasterReader> {
    return this.masters.of(index);
  }

  proxy(index: number): MasterReader | null {
    return this.proxies[index] ?? null;
  }
}
