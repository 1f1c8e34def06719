import { type FontFamily, fontIndexSchema } from '@core/words/font-index';
import { TroubleError } from '@core/trouble/trouble';
import { storedFile } from '../store/storage';

/** Names of a person's own font in the private file system. */
export const ownFontNames = (family: string) => ({ bytes: `${family}.font`, facts: `${family}.json` });

const familySchema = fontIndexSchema.shape.families.valueType;

/** Reads the facts of a person's own font, or null where it is not in this browser. */
export async function ownFontFamily(family: string): Promise<FontFamily | null> {
  const file = await storedFile('fonts', ownFontNames(family).facts);
  if (!file) return null;
  const facts = familySchema.safeParse(JSON.parse(await file.text()));
  return facts.success ? facts.data : null;
}

/** @throws TroubleError `font-gone` */
export async function ownFontBytes(family: string): Promise<ArrayBuffer> {
  const file = await storedFile('fonts', ownFontNames(family).bytes);
  if (!file) throw new TroubleError('font-gone');
  return file.arrayBuffer();
}
