import { sha256 } from '@noble/hashes/sha2.js';
import { bytesToHex } from '@noble/hashes/utils.js';
import { TroubleError } from '@core/trouble/trouble';
import { ownFamily } from '@core/words/families';
import { readFont } from '@render/words/read-font';
import { writeSmall } from '../store/storage';
import { ownFontNames } from './own-fonts';

/** A person's own font that can be drawn with. */
export interface CheckedFont {
  family: string;
  /** Name that the font gives itself. */
  name: string;
}

/** Largest font that is taken, in bytes: one of a whole script of the East has some twenty million. */
const MAX_BYTES = 40_000_000;
/** Fewer characters than this make no font to write with. */
const MIN_CHARACTERS = 10;
/** How the formats that are taken begin: TrueType, OpenType, WOFF2 (their specifications' own signatures). */
const SIGNATURES = ['00010000', '74727565', '4f54544f', '774f4632'];

/** Checks a file and keeps it as a font of the person's own. @throws TroubleError `not-font`, and what storing throws. */
export async function keepFont({ file }: { file: File }): Promise<CheckedFont> {
  const refuse = (detail: string) => new TroubleError('not-font', { file: file.name, detail });
  if (file.size > MAX_BYTES) throw refuse(`it has ${Math.round(file.size / 1e6)} MB`);
  const bytes = new Uint8Array(await file.arrayBuffer());
  const begins = bytesToHex(bytes.subarray(0, 4));
  if (!SIGNATURES.includes(begins)) throw refuse('it is neither TTF, OTF nor WOFF2');
  const read = readFont(bytes);
  if (!read) throw refuse('its tables are damaged');
  if (read.characters.length < MIN_CHARACTERS) throw refuse('it has hardly any characters');
  const family = ownFamily(bytesToHex(sha256(bytes)).slice(0, 16));
  // The browser's own reader is stricter, and has the last word.
  await new FontFace(family, bytes).load().catch((error: unknown) => {
    throw refuse(error instanceof Error ? error.message : 'the browser does not take it');
  });
  const { bytes: bytesName, facts } = ownFontNames(family);
  await writeSmall('fonts', bytesName, new Blob([bytes]));
  await writeSmall('fonts', facts, new Blob([JSON.stringify(read.family)]));
  return { family, name: read.name };
}
