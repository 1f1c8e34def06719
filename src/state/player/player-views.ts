import type { Size } from '@core/picture/size';
import type { View } from '@media/play/player-protocol';

type Paint = (picture: ImageBitmap) => void;

/** The views on screen: their sizes, what paints them, and the picture that each shows. */
export class PlayerViews {
  private sizes: Partial<Record<View, Size>> = {};
  private readonly latest = new Map<View, ImageBitmap>();
  private readonly painters = new Map<View, Paint>();

  /** @param onSizes is told the sizes of the views whenever one comes or goes. */
  constructor(private readonly onSizes: (sizes: Partial<Record<View, Size>>) => void) {}

  /** Sizes of the views on screen, in pixels. */
  get all(): Partial<Record<View, Size>> {
    return this.sizes;
  }

  /** Puts a view on screen. @returns takes it off again. */
  mount(view: View, size: Size, paint: Paint): () => void {
    this.painters.set(view, paint);
    this.setSizes({ ...this.sizes, [view]: size });
    const picture = this.latest.get(view);
    if (picture) paint(picture);
    return () => {
      if (this.painters.get(view) !== paint) return;
      this.painters.delete(view);
      const { [view]: _gone, ...rest } = this.sizes;
      this.setSizes(rest);
    };
  }

  private setSizes(sizes: Partial<Record<View, Size>>): void {
    this.sizes = sizes;
    this.onSizes(sizes);
  }

  /** Shows a picture in its view; the one before it is closed. */
  show(view: View, picture: ImageBitmap): void {
    this.latest.get(view)?.close();
    this.latest.set(view, picture);
    this.painters.get(view)?.(picture);
  }

  /** Closes every picture. */
  clear(): void {
    for (const picture of this.latest.values()) picture.close();
    this.latest.clear();
  }
}
