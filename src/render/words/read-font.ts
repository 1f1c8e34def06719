import * as fontkit from 'fontkit';
import type { FontFamily } from '@core/words/font-index';

/** Facts of a font's tables. */
export interface ReadFont {
  /** Name that the font gives itself. */
  name: string;
  /** Code points that it has. */
  characters: number[];
  family: FontFamily;
}

/** Reads TrueType, OpenType or WOFF2; null where its tables cannot be read. */
export function readFont(bytes: Uint8Array): ReadFont | null {
  try {
    const font = fontkit.create(bytes as unknown as Buffer);
    if (!('characterSet' in font)) return null;
    const { unitsPerEm, ascent, descent, capHeight, characterSet: characters } = font;
    const share = (value: number) => value / unitsPerEm;
    const measures = [share(ascent), -share(descent), share(capHeight || ascent)];
    if (!measures.every((measure) => Number.isFinite(measure) && Math.abs(measure) < 10)) return null;
    const [up = 1, down = 0, cap = 0.7] = measures;
    const ranges = characters.map((point) => point.toString(16)).join();
    const files = [{ file: 'own', weight: 400, ranges }];
    const name = [font.familyName, font.subfamilyName].filter(Boolean).join(' ') || 'A font without a name';
    return { name, characters, family: { ascent: up, descent: down, capHeight: cap, files } };
  } catch {
    return null;
  }
}
