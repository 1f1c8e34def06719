import { type Cut, type Range, rangeLength } from '../cut/cut';
import { type FrameRate, toSeconds } from '../time/frame-rate';

/** Seconds of a piece: as long as a group of pictures of the export, so that each piece pays for one key frame. */
const PIECE_SECONDS = 2;

/** A piece of a clip, of one range of its cut. */
export interface TrialPiece {
  range: Range;
  seconds: number;
  /** Bits a second that the master itself spends there. */
  hardness: number;
}

/** Bytes and duration of a piece that was encoded. */
export interface TriedPiece {
  piece: TrialPiece;
  /** Video bits a second. */
  bits: number;
}

/**
 * A clip in pieces of about two seconds.
 * @param rateOf the rate of a master. @param bitsOf its video bits of each second from its first frame.
 */
export function trialPieces(
  cut: Cut,
  rateOf: (master: string) => FrameRate,
  bitsOf: (master: string) => readonly number[],
): TrialPiece[] {
  return cut.flatMap((range) => {
    const rate = rateOf(range.master);
    const count = Math.max(1, Math.round(toSeconds(rangeLength(range), rate) / PIECE_SECONDS));
    const bits = bitsOf(range.master);
    return Array.from({ length: count }, (_, i): TrialPiece | null => {
      const edge = (n: number) => range.in + Math.round((rangeLength(range) * n) / count);
      const piece = { master: range.master, in: edge(i), out: edge(i + 1) };
      if (piece.out <= piece.in) return null;
      const seconds = toSeconds(rangeLength(piece), rate);
      return { range: piece, seconds, hardness: meanBits(bits, piece, rate) };
    }).filter((piece) => piece !== null);
  });
}

function meanBits(bits: readonly number[], range: Range, rate: FrameRate): number {
  const [from, to] = [toSeconds(range.in, rate), toSeconds(range.out, rate)];
  let sum = 0;
  for (let second = Math.floor(from); second < to; second++) {
    sum += (Math.min(to, second + 1) - Math.max(from, second)) * (bits[second] ?? bits[bits.length - 1] ?? 0);
  }
  return sum / (to - from);
}

/** Pieces that are tried of a clip that is much the same all along, and of one that is not. */
const TRIES = { even: 2, uneven: 6 };
/** A clip is uneven whose hardest piece is so many times as hard as its easiest. */
const UNEVEN = 1.5;

/** The pieces that are worth encoding, from the easiest to the hardest; all of a short clip. */
export function piecesToTry(pieces: readonly TrialPiece[]): TrialPiece[] {
  const byHardness = [...pieces].sort((a, b) => a.hardness - b.hardness);
  const last = byHardness.length - 1;
  const spread = (byHardness[last]?.hardness ?? 0) / Math.max(1, byHardness[0]?.hardness ?? 0);
  const tries = spread > UNEVEN ? TRIES.uneven : TRIES.even;
  if (byHardness.length <= tries) return byHardness;
  const place = (n: number) => Math.round((last * n) / (tries - 1));
  return Array.from({ length: tries }, (_, n) => byHardness[place(n)] as TrialPiece);
}

/**
 * Video bits a second of a whole clip, by what some of its pieces came to: those themselves, the others in proportion
 * to what the master spends, between two of them, and past the last as much as there.
 * @param tried in order of hardness, at least one.
 */
export function estimateBitrate(pieces: readonly TrialPiece[], tried: readonly TriedPiece[]): number {
  const at = (piece: TrialPiece): number => {
    const own = tried.find((other) => other.piece === piece);
    if (own) return own.bits;
    const { hardness } = piece;
    const above = tried.findIndex(({ piece }) => piece.hardness >= hardness);
    const [low, high] = [tried[above - 1], tried[above] ?? tried[tried.length - 1]];
    if (!high) throw new RangeError('no piece was tried');
    if (!low || high === low) return high.bits;
    const share = (hardness - low.piece.hardness) / (high.piece.hardness - low.piece.hardness);
    return low.bits + share * (high.bits - low.bits);
  };
  const seconds = pieces.reduce((sum, piece) => sum + piece.seconds, 0);
  return pieces.reduce((sum, piece) => sum + piece.seconds * at(piece), 0) / seconds;
}
