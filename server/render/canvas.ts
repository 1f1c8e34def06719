import { readFile } from 'node:fs/promises';
import path from 'node:path';
import { createCanvas, GlobalFonts, setTextRenderer } from '@napi-rs/canvas';
import { TroubleError } from '../../src/core/trouble/trouble';
import { isOwnFamily, ownHash } from '../../src/core/words/families';
import { type FontFile, fontIndexSchema } from '../../src/core/words/font-index';
import { type FontLoader, Fonts } from '../../src/render/words/fonts';
import { readFont } from '../../src/render/words/read-font';
import type { RenderOrder } from './order';

/** Where the fonts that ship lie, as they are built for the browser. */
const FOLDER = path.resolve(__dirname, '../../public/fonts');

/** Stands in for the surface that browsers draw words on. */
class Surface {
  constructor(width: number, height: number) {
    return createCanvas(width, height) as unknown as Surface;
  }
}

/** Has words drawn in this thread, where no browser does it. */
function drawWithoutBrowser(): void {
  // Browsers draw text with the gamma of their system.
  setTextRenderer('system');
  globalThis.OffscreenCanvas ??= Surface as unknown as typeof OffscreenCanvas;
}

/** The fonts of an order's words. */
export async function openFonts(order: Pick<RenderOrder, 'masters'>): Promise<Fonts> {
  drawWithoutBrowser();
  const index = fontIndexSchema.parse(JSON.parse(await readFile(path.join(FOLDER, 'index.json'), 'utf8')));
  return new Fonts(index, new FileFonts(order));
}

/** Loads fonts from files: each has a name of its own, since a name here cannot be shared out over characters. */
class FileFonts implements FontLoader {
  private readonly names = new Map<string, string[]>();

  constructor(private readonly order: Pick<RenderOrder, 'masters'>) {}

  async own(family: string): ReturnType<FontLoader['own']> {
    const file = this.fileOfOwn(family);
    return file === null ? null : (readFont(await readFile(file))?.family ?? null);
  }

  async load({ file, weight }: FontFile, family: string): Promise<() => void> {
    const from = isOwnFamily(family) ? this.fileOfOwn(family) : path.join(FOLDER, file);
    if (from === null) throw new TroubleError('font-gone');
    const name = `gusset-${family}-${path.parse(file).name}`;
    // Names are the whole process's: another thread may have it already.
    if (!GlobalFonts.has(name) && !GlobalFonts.register(await readFile(from), name))
      throw new TroubleError('font-gone');
    // What came last is asked first, as browsers do (CSS Fonts Level 4, 5.2: composite faces).
    const face = `${family} ${weight}`;
    return () => void this.names.set(face, [name, ...(this.names.get(face) ?? [])]);
  }

  stack(family: string, weight: number): string {
    return (this.names.get(`${family} ${weight}`) ?? [family]).map((name) => `"${name}"`).join();
  }

  /** A person's own font is sent as masters are, by its fingerprint. */
  private fileOfOwn(family: string): string | null {
    const found = Object.entries(this.order.masters).find(([print]) => print.startsWith(ownHash(family)));
    return found?.[1] ?? null;
  }
}
