import type { Packet, Streams } from '@render/mux';
import type { KeptLog } from '../store/kept-log';

/** Decoder configuration of a stream, besides its packets. */
export type StreamConfig = VideoDecoderConfig | AudioDecoderConfig;

type Track = 'picture' | 'sound';

/** Kinds of records. */
const KINDS = {
  mark: 1,
  picture: 2,
  sound: 3,
  groupBegin: 4,
  groupEnd: 5,
  pictureConfig: 6,
  soundConfig: 7,
  soundEnd: 8,
};
/** Kind, key, group, length: 4 bytes each; time stamp and duration: 8 each. */
const HEAD = 32;

/** Where a packet lies. */
interface Place extends Omit<Packet, 'data'> {
  at: number;
  length: number;
}

/**
 * The packets of a file that is being made, in a log that outlives its page: groups of pictures that are whole, and the
 * sound so far. What a page was in the middle of when it ended is forgotten.
 */
export class PacketLog {
  private readonly groups = new Map<number, Place[]>();
  private readonly whole = new Set<number>();
  private readonly heard: Place[] = [];
  private readonly configs: Partial<Record<Track, StreamConfig>> = {};
  private soundEnded = false;

  private constructor(private readonly log: KeptLog) {}

  /**
   * Takes up a log, or begins it anew where it is of something else.
   * @param mark of what is made: the same for the same file.
   */
  static open(log: KeptLog, mark: string): PacketLog {
    const made = new PacketLog(log);
    if (!made.takeUp(mark)) {
      log.cut(0);
      made.write(KINDS.mark, encodeText(mark));
    }
    return made;
  }

  /** Tells whether a group is complete. */
  has(group: number): boolean {
    return this.whole.has(group);
  }

  /** Of the pictures of a group. */
  bytesOf(group: number): number {
    return (this.groups.get(group) ?? []).reduce((sum, { length }) => sum + length, 0);
  }

  /** Begins a group anew: what is added takes the place of what is there. */
  begin(group: number): void {
    this.forget(group);
    this.write(KINDS.groupBegin, new Uint8Array(0), { group });
  }

  private forget(group: number): void {
    this.groups.set(group, []);
    this.whole.delete(group);
  }

  addPicture(group: number, packet: Packet): void {
    this.groups.get(group)?.push(this.put(KINDS.picture, packet, group));
  }

  /** A group is whole: from here on it outlives the page. */
  end(group: number): void {
    this.write(KINDS.groupEnd, new Uint8Array(0), { group });
    this.whole.add(group);
    this.log.flush();
  }

  addSound(packet: Packet): void {
    this.heard.push(this.put(KINDS.sound, packet));
  }

  /** Pieces of sound so far. */
  get soundPackets(): number {
    return this.heard.length;
  }

  /** Of the sound that is there. */
  get soundBytes(): number {
    return this.heard.reduce((sum, { length }) => sum + length, 0);
  }

  endSound(): void {
    this.write(KINDS.soundEnd, new Uint8Array(0));
    this.soundEnded = true;
  }

  get hasSound(): boolean {
    return this.soundEnded;
  }

  /** Stores the decoder configuration of a track; the first one counts. */
  setConfig(track: Track, config: StreamConfig): void {
    if (this.configs[track]) return;
    this.configs[track] = config;
    const { description, ...rest } = config;
    const bytes = description && [...toBytes(description)];
    const kind = track === 'picture' ? KINDS.pictureConfig : KINDS.soundConfig;
    this.write(kind, encodeText(JSON.stringify({ ...rest, ...(bytes && { description: bytes }) })));
  }

  /** All that goes into the file: pictures in the order of their groups, in each as they are decoded. */
  streams(): Streams {
    const { picture, sound } = this.configs;
    return {
      picture: picture
        ? { config: picture as VideoDecoderConfig, packets: this.pictures(), count: Infinity }
        : null,
      sound: sound
        ? { config: sound as AudioDecoderConfig, packets: this.sounds(), count: this.soundPackets }
        : null,
    };
  }

  private *pictures(): Generator<Packet, void, undefined> {
    for (const group of [...this.whole].sort((a, b) => a - b)) {
      for (const place of this.groups.get(group) ?? []) yield this.readPacket(place);
    }
  }

  private *sounds(): Generator<Packet, void, undefined> {
    for (const place of this.heard) yield this.readPacket(place);
  }

  close(): void {
    this.log.close();
  }

  remove(): Promise<void> {
    return this.log.remove();
  }

  private readPacket({ at, length, ...facts }: Place): Packet {
    return { ...facts, data: this.log.read(at, length) };
  }

  private put(kind: number, { data, ...facts }: Packet, group = 0): Place {
    const at = this.write(kind, data, { ...facts, group });
    return { ...facts, at, length: data.byteLength };
  }

  /** @returns where the data lies. */
  private write(
    kind: number,
    data: Uint8Array<ArrayBuffer>,
    { group = 0, key = false, timestamp = 0, duration = 0 } = {},
  ): number {
    const record = new Uint8Array(HEAD + data.byteLength);
    const head = new DataView(record.buffer);
    [kind, key ? 1 : 0, group, data.byteLength].forEach((value, i) => head.setUint32(4 * i, value));
    head.setFloat64(16, timestamp);
    head.setFloat64(24, duration);
    record.set(data, HEAD);
    return this.log.append(record) + HEAD;
  }

  /** Reads what an earlier page left. @returns whether it was of the same file. */
  private takeUp(mark: string): boolean {
    const { log } = this;
    let at = 0;
    let known = false;
    while (at + HEAD <= log.size) {
      const head = new DataView(log.read(at, HEAD).buffer);
      const [kind, key, group, length] = [0, 4, 8, 12].map((offset) => head.getUint32(offset)) as [
        number,
        number,
        number,
        number,
      ];
      const place = {
        ...{ at: at + HEAD, length, key: key === 1 },
        ...{ timestamp: head.getFloat64(16), duration: head.getFloat64(24) },
      };
      if (place.at + length > log.size) break;
      if (!known && (kind !== KINDS.mark || decodeText(log.read(place.at, length)) !== mark)) return false;
      known = true;
      this.take(kind, group, place);
      at = place.at + length;
    }
    log.cut(at);
    for (const group of this.groups.keys()) if (!this.whole.has(group)) this.groups.delete(group);
    return known;
  }

  private take(kind: number, group: number, place: Place): void {
    const config = () => {
      const { description, ...rest } = JSON.parse(decodeText(this.log.read(place.at, place.length)));
      return (description ? { ...rest, description: new Uint8Array(description) } : rest) as StreamConfig;
    };
    if (kind === KINDS.groupBegin) this.forget(group);
    else if (kind === KINDS.picture) this.groups.get(group)?.push(place);
    else if (kind === KINDS.groupEnd) this.whole.add(group);
    else if (kind === KINDS.sound) this.heard.push(place);
    else if (kind === KINDS.soundEnd) this.soundEnded = true;
    else if (kind === KINDS.pictureConfig) this.configs.picture ??= config();
    else if (kind === KINDS.soundConfig) this.configs.sound ??= config();
  }
}

const encodeText = (text: string): Uint8Array<ArrayBuffer> => new TextEncoder().encode(text);
const decodeText = (bytes: Uint8Array): string => new TextDecoder().decode(bytes);
const toBytes = (data: AllowSharedBufferSource): Uint8Array =>
  ArrayBuffer.isView(data)
    ? new Uint8Array(data.buffer, data.byteOffset, data.byteLength)
    : new Uint8Array(data);
