import { HEIGHT, WIDTH } from './paint';
import { shotStarts } from './shots';

/** Draws the whole film frame by frame and sends each as raw RGBA to the maker, which waits for it. */
async function render(): Promise<void> {
  const canvas = new OffscreenCanvas(WIDTH, HEIGHT);
  const ink = canvas.getContext('2d', { willReadFrequently: true, alpha: false });
  if (!ink) throw new Error('no 2D canvas');
  for (const { shot } of shotStarts()) {
    for (let n = 0; n < shot.frames; n++) {
      shot.draw(ink, (n * 1001) / 24000);
      await fetch('/frame', { method: 'POST', body: ink.getImageData(0, 0, WIDTH, HEIGHT).data });
    }
  }
  await fetch('/end', { method: 'POST' });
}

void render();
