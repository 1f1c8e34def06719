import LineBreaker from 'linebreak';
import { splitGraphemes } from './graphemes';

/** A piece of text that no line may break inside, and whether one must end after it. */
export interface TextPiece {
  text: string;
  ends: boolean;
}

/** The pieces between places where a line may break (UAX #14), never inside a grapheme. */
export function splitIntoPieces(text: string): TextPiece[] {
  const whole = new Set<number>();
  let start = 0;
  for (const grapheme of splitGraphemes(text)) whole.add((start += grapheme.length));
  const breaker = new LineBreaker(text);
  const pieces: TextPiece[] = [];
  let from = 0;
  for (let found = breaker.nextBreak(); found; found = breaker.nextBreak()) {
    const { position, required } = found;
    if (!whole.has(position)) continue;
    const ends = required === true && /[\n\r\v\f\u0085\u2028\u2029]$/u.test(text.slice(from, position));
    pieces.push({ text: text.slice(from, position), ends });
    from = position;
  }
  return pieces;
}
