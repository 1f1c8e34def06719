import fc from 'fast-check';
import type { Packet } from '@render/mux';
import type { KeptLog } from '../store/kept-log';
import { PacketLog } from './packet-log';

/** A log in memory, as the browser's storage keeps one. */
class Memory {
  constructor(public bytes = new Uint8Array(0)) {}
  get size(): number {
    return this.bytes.length;
  }
  append(data: Uint8Array): number {
    const at = this.bytes.length;
    const both = new Uint8Array(at + data.length);
    both.set(this.bytes);
    both.set(data, at);
    this.bytes = both;
    return at;
  }
  read = (at: number, length: number) => this.bytes.slice(at, at + length);
  cut(at: number): void {
    this.bytes = this.bytes.slice(0, at);
  }
  flush = () => undefined;
  close = () => undefined;
}
const open = (memory: Memory, mark = 'x') => PacketLog.open(memory as unknown as KeptLog, mark);

const packet = (n: number): Packet => ({
  data: new Uint8Array([n & 255, n >> 8, 7]),
  key: n % 5 === 0,
  timestamp: n / 24,
  duration: 1 / 24,
});
const config = { codec: 'avc1.640028', codedWidth: 16, codedHeight: 16, description: new Uint8Array([1, 2]) };

/** Writes groups of five pictures, with a piece of sound after each picture. */
function write(log: PacketLog, groups: number): void {
  log.setConfig('picture', config);
  for (let group = 0; group < groups; group++) {
    if (log.has(group)) continue;
    log.begin(group);
    for (let n = 0; n < 5; n++) {
      log.addPicture(group, packet(5 * group + n));
      if (log.soundPackets < 5 * group + n) log.addSound(packet(log.soundPackets));
    }
    log.end(group);
  }
}
const listed = (log: PacketLog) => {
  const { picture, sound } = log.streams();
  return {
    pictures: [...((picture?.packets ?? []) as Iterable<Packet>)],
    config: picture?.config,
    sounds: [...((sound?.packets ?? []) as Iterable<Packet>)],
  };
};

describe('a log of packets', () => {
  it('gives back what was put in, in the order of its groups', () => {
    const memory = new Memory();
    const log = open(memory);
    write(log, 3);
    const { pictures, config: said } = listed(log);
    expect(pictures).toEqual(Array.from({ length: 15 }, (_, n) => packet(n)));
    expect(said).toEqual(config);
    expect(log.bytesOf(1)).toBe(15);
  });

  it('that is cut off anywhere keeps its whole groups alone, and goes on to the same end', () => {
    const whole = new Memory();
    write(open(whole), 4);
    fc.assert(
      fc.property(fc.nat(whole.size), (end) => {
        const memory = new Memory(whole.bytes.slice(0, end));
        const log = open(memory);
        const kept = [0, 1, 2, 3].filter((group) => log.has(group));
        // They are whole in their order, and nothing else of the pictures is there.
        expect(kept).toEqual([0, 1, 2, 3].slice(0, kept.length));
        expect(listed(log).pictures).toHaveLength(log.streams().picture ? 5 * kept.length : 0);
        write(log, 4);
        // A page that opens later reads the same.
        const again = listed(open(memory));
        expect(again.pictures).toEqual(Array.from({ length: 20 }, (_, n) => packet(n)));
        expect(again.sounds.map(({ timestamp }) => timestamp)).toEqual(again.sounds.map((_, n) => n / 24));
      }),
    );
  });

  it('that is of another file begins anew', () => {
    const memory = new Memory();
    write(open(memory), 2);
    expect(open(memory, 'another').has(0)).toBe(false);
  });

  it('takes a group that is made again in the place of the one before', () => {
    const memory = new Memory();
    const log = open(memory);
    write(log, 2);
    log.begin(0);
    log.addPicture(0, packet(100));
    expect(log.has(0)).toBe(false);
    log.end(0);
    expect(listed(open(memory)).pictures.map(({ data }) => data[0])).toEqual([100, 5, 6, 7, 8, 9]);
  });
});
