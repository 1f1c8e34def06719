import type { PixelAspect } from '../picture/orientation';
import type { Size } from '../picture/size';

/** A pixel aspect that a stored size suggests. */
export interface Guess {
  name: string;
  aspect: PixelAspect;
}

/**
 * Tape ratios. Source: ITU-R BT.601-7 (13.5 MHz sampling, 720 samples a line) with the square-pixel rates of
 * SMPTE RP 187: 10:11 and 40:33 for 480 lines, 12:11 and 16:11 for 576 lines.
 */
const TAPE: Record<number, [four3: PixelAspect, sixteen9: PixelAspect]> = {
  480: [
    { num: 10, den: 11 },
    { num: 40, den: 33 },
  ],
  486: [
    { num: 10, den: 11 },
    { num: 40, den: 33 },
  ],
  576: [
    { num: 12, den: 11 },
    { num: 16, den: 11 },
  ],
};

/** Widths of a BT.601 line. */
const TAPE_WIDTHS = [704, 720];

/**
 * Guesses pixel aspects from a stored size when its file says that pixels are square: a tape's ratios, or
 * half the lines missing, so that each counts twice.
 */
export function guessAspects({ width, height }: Size): Guess[] {
  const tape = TAPE_WIDTHS.includes(width) ? TAPE[height] : undefined;
  if (tape) {
    return [
      { name: 'A 4:3 tape', aspect: tape[0] },
      { name: 'A 16:9 tape', aspect: tape[1] },
    ];
  }
  // Twice as wide as any picture is: one field of an interlaced capture.
  if (width >= 640 && width / height > 2.6)
    return [{ name: 'Half the lines: count each twice', aspect: { num: 1, den: 2 } }];
  if (width === 640 && height === 240)
    return [{ name: 'Half the lines: count each twice', aspect: { num: 1, den: 2 } }];
  // 1440 samples a line of 1920 (SMPTE ST 274 recorded by common tape and camera formats).
  if (width === 1440 && height === 1080) return [{ name: 'A 16:9 tape', aspect: { num: 4, den: 3 } }];
  return [];
}
