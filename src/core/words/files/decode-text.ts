/** A text, and what it was read as. */
export interface DecodedText {
  text: string;
  encoding: 'UTF-8' | 'UTF-16 LE' | 'UTF-16 BE' | 'Windows-1252';
  mark: boolean;
}

/** So many bytes are looked at to tell UTF-16 without a mark. */
const LOOKED_AT = 4096;
/** UTF-16 of mostly Latin text has a zero in nearly every pair. */
const MOSTLY = 0.4;

const LABELS = {
  'UTF-8': 'utf-8',
  'UTF-16 LE': 'utf-16le',
  'UTF-16 BE': 'utf-16be',
  'Windows-1252': 'windows-1252',
} as const;

/** Reads bytes as text: by their mark, else as UTF-8 where they are that, else as UTF-16 or Windows-1252. */
export function decodeText(bytes: Uint8Array): DecodedText {
  const marked = byMark(bytes);
  const encoding =
    marked ?? (isUtf8(bytes) ? (unmarkedUtf16(bytes) ?? 'UTF-8') : (unmarkedUtf16(bytes) ?? 'Windows-1252'));
  return { text: new TextDecoder(LABELS[encoding]).decode(bytes), encoding, mark: marked !== null };
}

function byMark([a, b, c]: Uint8Array): DecodedText['encoding'] | null {
  if (a === 0xef && b === 0xbb && c === 0xbf) return 'UTF-8';
  if (a === 0xff && b === 0xfe) return 'UTF-16 LE';
  if (a === 0xfe && b === 0xff) return 'UTF-16 BE';
  return null;
}

function isUtf8(bytes: Uint8Array): boolean {
  try {
    new TextDecoder('utf-8', { fatal: true }).decode(bytes);
    return true;
  } catch {
    return false;
  }
}

function unmarkedUtf16(bytes: Uint8Array): DecodedText['encoding'] | null {
  const zeros: [even: number, odd: number] = [0, 0];
  const looked = Math.min(bytes.length, LOOKED_AT);
  for (let i = 0; i < looked; i++) if (bytes[i] === 0) zeros[i % 2 === 0 ? 0 : 1] += 1;
  if (zeros[1] > (looked / 2) * MOSTLY) return 'UTF-16 LE';
  return zeros[0] > (looked / 2) * MOSTLY ? 'UTF-16 BE' : null;
}
