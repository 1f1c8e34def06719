import { readFile } from 'node:fs/promises';
import path from 'node:path';
import { threadId } from 'node:worker_threads';
import { createCanvas, type FontKey, GlobalFonts, setTextRenderer } from '@napi-rs/canvas';
import { TroubleError } from '../../src/core/trouble/trouble';
import { isOwnFamily, ownHash } from '../../src/core/words/families';
import { type FontFile, fontIndexSchema } from '../../src/core/words/font-index';
import { type FontLoader, Fonts } from '../../src/render/words/fonts';
import { readFont } from '../../src/render/words/read-font';
import { ROOT } from '../root';
import type { RenderOrder } from './order';

/** Where the fonts that ship lie, as they are built for the browser. */
const FOLDER = path.join(ROOT, 'public/fonts');

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

/** Fonts, and what lets those of a person's own go. */
interface OpenFonts {
  fonts: Fonts;
  close(): void;
}

/** The fonts of an order's words. Whoever opens them closes them. */
export async function openServerFonts(order: Pick<RenderOrder, 'masters'>): Promise<OpenFonts> {
  drawWithoutBrowser();
  const index = fontIndexSchema.parse(JSON.parse(await readFile(path.join(FOLDER, 'index.json'), 'utf8')));
  const loader = new FileFonts(order);
  return { fonts: new Fonts(index, loader), close: () => loader.close() };
}

/** Fonts of persons' own that were taken up in this thread. */
let count = 0;

/** The name of a font that ships; it stays, since every work may want it. */
async function shippedName(file: string, family: string): Promise<string> {
  const name = `gusset-${family}-${path.parse(file).name}`;
  // Another thread may have it already.
  if (!GlobalFonts.has(name) && !GlobalFonts.register(await readFile(path.join(FOLDER, file)), name))
    throw new TroubleError('font-gone');
  return name;
}

/** Loads fonts from files: each has a name of its own, since a name here cannot be shared out over characters. */
class FileFonts implements FontLoader {
  private readonly names = new Map<string, string[]>();
  /** Registered fonts of the person. */
  private readonly held: FontKey[] = [];

  constructor(private readonly order: Pick<RenderOrder, 'masters'>) {}

  async own(family: string): ReturnType<FontLoader['own']> {
    const file = this.fileOfOwn(family);
    return file === null ? null : (readFont(await readFile(file))?.family ?? null);
  }

  async load({ file, weight }: FontFile, family: string): Promise<() => void> {
    const name = isOwnFamily(family) ? await this.holdOwn(family) : await shippedName(file, family);
    // What came last is asked first, as browsers do (CSS Fonts Level 4, 5.2: composite faces).
    const face = `${family} ${weight}`;
    return () => void this.names.set(face, [name, ...(this.names.get(face) ?? [])]);
  }

  stack(family: string, weight: number): string {
    return (this.names.get(`${family} ${weight}`) ?? [family]).map((name) => `"${name}"`).join();
  }

  close(): void {
    GlobalFonts.removeBatch(this.held.splice(0));
  }

  /** Names are the whole process's: a font of a person's own gets one that goes with this work. */
  private async holdOwn(family: string): Promise<string> {
    const from = this.fileOfOwn(family);
    const name = `gusset-${family}-${threadId}-${count++}`;
    const key = from === null ? null : GlobalFonts.register(await readFile(from), name);
    if (!key) throw new TroubleError('font-gone');
    this.held.push(key);
    return name;
  }

  /** A person's own font is sent as masters are, by its fingerprint. */
  private fileOfOwn(family: string): string | null {
    const found = Object.entries(this.order.masters).find(([print]) => print.startsWith(ownHash(family)));
    return found?.[1] ?? null;
  }
}
