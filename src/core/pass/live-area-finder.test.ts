import { execFileSync } from 'node:child_process';
import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { encodeFilm } from '../../../tests/encode-film';
import { cropDetect } from '../../../tests/make-clip';
import { drawn } from '../../../tests/soak';
import { brightLevel, type FoundLive, LiveAreaFinder } from './live-area-finder';

const WIDTH = 640;
const HEIGHT = 360;
const folder = mkdtempSync(path.join(tmpdir(), 'bars-'));

/** The demo film in little, four frames a second, without loss. */
const little = path.join(folder, 'little.mkv');
beforeAll(() => {
  const small = ['-vf', `fps=4,scale=${WIDTH}:${HEIGHT}`, '-an', '-c:v', 'ffv1', '-g', '1'];
  encodeFilm(little, ['-t', '33', '-i', 'public/demo/kite-day.mp4', ...small]);
}, 60_000);

/** A barred film: parts of that through ffmpeg's filters, coded as any export is. */
function film(name: string, filter: string, from = 0): string {
  const file = path.join(folder, `${name}.mp4`);
  const chain = `noise=alls=4:allf=t,${filter},format=yuv420p`;
  const input = ['-ss', String(from), '-t', '6', '-i', little];
  return encodeFilm(file, [
    ...[...input, '-vf', chain, '-an', '-c:v', 'libx264', '-preset', 'veryfast', '-crf', '20'],
  ]);
}

/** Runs the finder on a film. */
function found(file: string): FoundLive {
  const args = [
    '-v',
    'error',
    '-i',
    file,
    '-pix_fmt',
    'gray',
    '-f',
    'rawvideo',
    '-color_range',
    'tv',
    '-vf',
    'format=yuv420p,extractplanes=y',
    '-',
  ];
  const luma = execFileSync('ffmpeg', args, { maxBuffer: 1 << 28 });
  const finder = new LiveAreaFinder({ width: WIDTH, height: HEIGHT });
  const level = brightLevel(false);
  for (let n = 0; (n + 1) * WIDTH * HEIGHT <= luma.length; n++) {
    const rows = new Int32Array(HEIGHT);
    const columns = new Int32Array(WIDTH);
    for (let y = 0; y < HEIGHT; y++) {
      for (let x = 0; x < WIDTH; x++) {
        if ((luma[(n * HEIGHT + y) * WIDTH + x] as number) <= level) continue;
        rows[y] = (rows[y] as number) + 1;
        columns[x] = (columns[x] as number) + 1;
      }
    }
    finder.push(n, { rows, columns });
  }
  return finder.whole();
}

const box = (width: number, height: number): string =>
  `scale=${width}:${height},pad=${WIDTH}:${HEIGHT}:(ow-iw)/2:(oh-ih)/2:black`;
const DARK = 'curves=all=0/0.01 1/0.16';

describe('baked-in bars', () => {
  // Judged from outside: ffmpeg's cropdetect.
  const barred: [string, string][] = [
    ['letterbox', box(640, 272)],
    ['pillarbox', box(480, 360)],
    ['windowbox', box(512, 288)],
    ['narrow-letterbox', box(640, 344)],
    ['tall-in-wide', box(202, 360)],
    ['dark-letterbox', `${DARK},${box(640, 272)}`],
    ['uneven', `scale=640:300,pad=640:360:0:20:black`],
    ['soft', `scale=640:280,pad=640:360:0:40:black,gblur=sigma=0.8`],
  ];
  it.each(drawn(barred, 4))('%s is found to within two samples of cropdetect', (name, filter) => {
    const file = film(name, filter);
    const { live, confidence } = found(file);
    const [width, height, x, y] = (cropDetect(file) ?? '').split(':').map(Number) as [
      number,
      number,
      number,
      number,
    ];
    expect(live).not.toBeNull();
    if (!live) return;
    const ours: number[] = [
      live.x * WIDTH,
      live.y * HEIGHT,
      (live.x + live.width) * WIDTH,
      (live.y + live.height) * HEIGHT,
    ];
    [x, y, x + width, y + height].forEach((edge, i) =>
      expect(Math.abs((ours[i] ?? NaN) - edge)).toBeLessThanOrEqual(2),
    );
    expect(confidence).toBeGreaterThan(0.5);
  });

  const slivers: [string, string, number[]][] = [
    ['top', 'x=0:y=0:w=iw:h=1', [0, 1, 0, 0]],
    ['bottom', 'x=0:y=ih-1:w=iw:h=1', [0, 0, 0, 1]],
    ['left', 'x=0:y=0:w=1:h=ih', [1, 0, 0, 0]],
    ['right', 'x=iw-1:y=0:w=1:h=ih', [0, 0, 1, 0]],
    ['two-below', 'x=0:y=ih-2:w=iw:h=2', [0, 0, 0, 2]],
  ];
  it.each(drawn(slivers, 2))('of a single sample is found: %s', (name, box, [left, top, right, bottom]) => {
    const { live } = found(film(`sliver-${name}`, `drawbox=${box}:color=black:t=fill`));
    expect(live).not.toBeNull();
    if (!live) return;
    expect(
      [
        live.x * WIDTH,
        live.y * HEIGHT,
        WIDTH - (live.x + live.width) * WIDTH,
        HEIGHT - (live.y + live.height) * HEIGHT,
      ].map(Math.round),
    ).toEqual([left, top, right, bottom]);
  });

  it('is found with a subtitle in it', () => {
    const line = 'drawbox=x=160:y=326:w=5:h=14:color=white:t=fill';
    const words = Array.from({ length: 30 }, (_, i) => line.replace('160', String(160 + i * 11))).join(',');
    const { live } = found(film('subtitle', `${box(640, 272)},${words}`));
    expect(Math.abs(((live?.y ?? 0) + (live?.height ?? 0)) * HEIGHT - 316)).toBeLessThanOrEqual(2);
  });

  it('is found with a station bug in it, which cropdetect takes for picture', () => {
    const bug = 'drawbox=x=560:y=330:w=60:h=16:color=white:t=fill';
    const { live } = found(film('bug', `${box(640, 272)},${bug}`));
    expect(Math.abs((live?.y ?? 0) * HEIGHT - 44)).toBeLessThanOrEqual(2);
    expect(Math.abs(((live?.y ?? 0) + (live?.height ?? 0)) * HEIGHT - 316)).toBeLessThanOrEqual(2);
  });

  const bare: [string, string, number][] = [
    ['plain', 'null', 0],
    ['dark', DARK, 0],
    ['darker', 'curves=all=0/0.005 1/0.09', 8],
    ['vignette', 'vignette=PI/2.6', 0],
    ['night', 'curves=all=0/0 0.5/0.02 1/0.3', 26],
    ['dark-corner', 'geq=lum=if(lt(X\\,W/3)*lt(Y\\,H/3)\\,16\\,lum(X\\,Y)):cb=cb(X\\,Y):cr=cr(X\\,Y)', 0],
  ];
  it.each(drawn(bare, 3))('none is found where there is none: %s', (name, filter, from) => {
    expect(found(film(`none-${name}`, filter, from)).live).toBeNull();
  });

  it('is nothing that black frames could tell', () => {
    expect(found(film('black', 'drawbox=color=black:t=fill')).live).toBeNull();
    expect(new LiveAreaFinder({ width: 8, height: 8 }).whole()).toEqual({ live: null, confidence: 0 });
  });
});
