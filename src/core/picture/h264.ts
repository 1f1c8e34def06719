/** Facts of an H.264 sequence parameter set. */
export interface SequenceFacts {
  /** Bits of a luma sample. */
  depth: number;
  /** True when pictures may be coded as fields. */
  interlaced: boolean;
  /** 1 is 4:2:0. */
  chromaFormat: number;
}

/** Reads bits of a byte string of which emulation prevention was taken out. */
class BitReader {
  private position = 0;

  constructor(private readonly bytes: readonly number[]) {}

  bit(): number {
    const byte = this.bytes[this.position >> 3];
    if (byte === undefined) throw new RangeError('the parameter set ends too early');
    return (byte >> (7 - (this.position++ & 7))) & 1;
  }

  bits(count: number): number {
    let value = 0;
    for (let i = 0; i < count; i++) value = value * 2 + this.bit();
    return value;
  }

  /** An Exp-Golomb number (clause 9.1). */
  golomb(): number {
    let zeros = 0;
    while (this.bit() === 0) {
      zeros += 1;
      if (zeros > 31) throw new RangeError('not an Exp-Golomb number');
    }
    return 2 ** zeros - 1 + this.bits(zeros);
  }

  signed(): number {
    const value = this.golomb();
    return value % 2 === 1 ? (value + 1) / 2 : -value / 2;
  }
}

/** Profiles whose parameter set tells chroma format and bit depth. */
const WITH_CHROMA = new Set([100, 110, 122, 244, 44, 83, 86, 118, 128, 138, 139, 134, 135]);

/**
 * Reads a sequence parameter set. Source: ITU-T H.264 clause 7.3.2.1.1.
 * @param unit the NAL unit with its header byte.
 * @returns null when the unit is no parameter set or is damaged.
 */
export function readSequence(unit: Uint8Array): SequenceFacts | null {
  if (unit.length < 4 || ((unit[0] ?? 0) & 31) !== 7) return null;
  try {
    return parse(new BitReader(removeEmulationPrevention(unit.subarray(1))));
  } catch {
    return null;
  }
}

function parse(reader: BitReader): SequenceFacts {
  const profile = reader.bits(8);
  reader.bits(16);
  reader.golomb();
  let chromaFormat = 1;
  let depth = 8;
  if (WITH_CHROMA.has(profile)) {
    chromaFormat = reader.golomb();
    if (chromaFormat === 3) reader.bit();
    depth = 8 + reader.golomb();
    reader.golomb();
    reader.bit();
    if (reader.bit()) skipScaling(reader, chromaFormat === 3 ? 12 : 8);
  }
  reader.golomb();
  const orderType = reader.golomb();
  if (orderType === 0) reader.golomb();
  else if (orderType === 1) {
    reader.bit();
    reader.signed();
    reader.signed();
    const count = reader.golomb();
    for (let i = 0; i < count; i++) reader.signed();
  }
  reader.golomb();
  reader.bit();
  reader.golomb();
  reader.golomb();
  return { depth, chromaFormat, interlaced: reader.bit() === 0 };
}

function skipScaling(reader: BitReader, lists: number): void {
  for (let list = 0; list < lists; list++) {
    if (!reader.bit()) continue;
    let last = 8;
    let next = 8;
    for (let i = 0; i < (list < 6 ? 16 : 64); i++) {
      if (next !== 0) next = (last + reader.signed() + 256) % 256;
      if (next !== 0) last = next;
    }
  }
}

/** Bytes without those that keep a start code from appearing (clause 7.4.1.1). */
function removeEmulationPrevention(bytes: Uint8Array): number[] {
  const out: number[] = [];
  let zeros = 0;
  for (const byte of bytes) {
    if (zeros >= 2 && byte === 3) {
      zeros = 0;
      continue;
    }
    zeros = byte === 0 ? zeros + 1 : 0;
    out.push(byte);
  }
  return out;
}

/** The first sequence parameter set of an AVC decoder configuration record (ISO/IEC 14496-15 clause 5.3.3.1), or null. */
export function readSequenceFacts(record: Uint8Array): SequenceFacts | null {
  if (record[0] !== 1 || ((record[5] ?? 0) & 31) === 0) return null;
  const length = ((record[6] ?? 0) << 8) | (record[7] ?? 0);
  return readSequence(record.subarray(8, 8 + length));
}

/** Bits of a sample by a codec string: `vp09.02.10.10`, `av01.0.04M.10`, `hev1.2…` (their RFC 6381 forms), or null. */
export function depthByCodecString(text: string): number | null {
  const parts = text.split('.');
  switch (parts[0]) {
    case 'vp8':
      return 8;
    case 'vp09':
    case 'av01':
      return Number(parts[3]) || null;
    case 'hev1':
    case 'hvc1':
      return parts[1] === '1' ? 8 : parts[1] === '2' ? 10 : null;
    default:
      return null;
  }
}
