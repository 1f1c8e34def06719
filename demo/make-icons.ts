/** Draws the icons of the installed app from `public/icon.svg`: `npx tsx demo/make-icons.ts`. */
import { readFileSync, writeFileSync } from 'node:fs';
import { createCanvas, loadImage } from '@napi-rs/canvas';

/**
 * Share of each side that a mask may cut away. Source: W3C Web Application Manifest, "maskable": a circle of
 * 40 %.
 */
const MASKED = 0.1;

async function main(): Promise<void> {
  const drawing = readFileSync('public/icon.svg');
  for (const [name, side, masked] of [
    ['icon-192', 192, 0],
    ['icon-512', 512, 0],
    ['icon-maskable-512', 512, MASKED],
  ] as const) {
    const inner = Math.round(side * (1 - 2 * masked));
    const svg = drawing.toString().replace('<svg ', `<svg width="${inner}" height="${inner}" `);
    const canvas = createCanvas(side, side);
    const ink = canvas.getContext('2d');
    if (masked > 0) {
      ink.fillStyle = '#FAF6EC';
      ink.fillRect(0, 0, side, side);
    }
    const at = (side - inner) / 2;
    ink.drawImage(await loadImage(Buffer.from(svg)), at, at, inner, inner);
    writeFileSync(`public/${name}.png`, canvas.toBuffer('image/png'));
  }
}

void main();
