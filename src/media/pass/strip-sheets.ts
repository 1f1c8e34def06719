import { WHOLE } from '@core/framing/window';
import type { Source } from '@core/master/source';
import { passNames, STRIP } from '@core/pass/pass';
import { drawUpright } from '../play/draw-upright';
import type { Picture } from '../play/preview-picture';
import { writeSmall } from '../store/storage';

const QUALITY = 0.75;

/** Draws small pictures of a master onto sheets, at several densities, and stores each sheet when it is full. */
export class StripSheets {
  readonly tileWidth: number;
  private readonly sheets = STRIP.every.map(() => ({
    canvas: null as OffscreenCanvas | null,
    index: 0,
    next: 0,
  }));

  constructor(private readonly source: Source) {
    const { width, height } = source.picture;
    this.tileWidth = Math.max(8, Math.round((STRIP.tileHeight * width) / height));
  }

  /** @param frame frames in order; those that no density wants are passed over. */
  async add(frame: number, tile: VideoFrame): Promise<void> {
    const picture = { image: tile, size: { width: tile.codedWidth, height: tile.codedHeight } };
    for (const [level, every] of STRIP.every.entries()) {
      const sheet = this.sheets[level];
      // A varying rate may skip a number: the next frame stands for it.
      if (sheet && frame >= (sheet.index * STRIP.across * STRIP.down + sheet.next) * every) {
        await this.draw(level, picture);
      }
    }
  }

  /** Stores the sheets that are not full. */
  async finish(): Promise<void> {
    for (const level of STRIP.every.keys()) await this.store(level);
  }

  private async draw(level: number, picture: Pick<Picture, 'image' | 'size'>): Promise<void> {
    const sheet = this.sheets[level];
    if (!sheet) return;
    const { tileWidth } = this;
    const { across, down, tileHeight } = STRIP;
    sheet.canvas ??= new OffscreenCanvas(tileWidth * across, tileHeight * down);
    const ink = sheet.canvas.getContext('2d', { alpha: false });
    if (!ink) throw new Error('this browser gives no 2D canvas to a worker');
    const x = (sheet.next % across) * tileWidth;
    const y = Math.floor(sheet.next / across) * tileHeight;
    drawUpright(ink, picture, this.source, WHOLE, WHOLE, { x, y, width: tileWidth, height: tileHeight });
    sheet.next += 1;
    if (sheet.next === across * down) await this.store(level);
  }

  private async store(level: number): Promise<void> {
    const sheet = this.sheets[level];
    if (!sheet?.canvas || sheet.next === 0) return;
    const blob = await sheet.canvas.convertToBlob({ type: 'image/jpeg', quality: QUALITY });
    await writeSmall('passes', passNames(this.source.fingerprint).sheet(level, sheet.index), blob);
    sheet.canvas = null;
    sheet.index += 1;
    sheet.next = 0;
  }
}
