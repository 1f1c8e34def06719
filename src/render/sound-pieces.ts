import type { Planes } from '@core/sound/channels';

/** Streamed sound, taken by numbers of samples. */
export class Pieces {
  private rest: Planes = [];

  constructor(private readonly sound: AsyncGenerator<Planes, void, undefined>) {}

  async take(count: number): Promise<Planes> {
    while ((this.rest[0]?.length ?? 0) < count) {
      const { value, done } = await this.sound.next();
      if (done) break;
      this.rest = this.rest.length === 0 ? value : this.rest.map((plane, n) => joinedPlane(plane, value[n]));
    }
    const taken = this.rest.map((plane) => plane.slice(0, count));
    this.rest = this.rest.map((plane) => plane.slice(count));
    return taken;
  }

  async close(): Promise<void> {
    await this.sound.return();
  }
}

function joinedPlane(a: Planes[number], b: Planes[number] | undefined): Planes[number] {
  const both = new Float32Array(a.length + (b?.length ?? 0));
  both.set(a);
  if (b) both.set(b, a.length);
  return both;
}
