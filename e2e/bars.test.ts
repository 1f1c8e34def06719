import { execFileSync } from 'node:child_process';
import { cropDetect } from '../tests/make-clip';
import { filmed } from '../tests/make-filmed';
import { drawn } from '../tests/soak';
import { similarity } from '../tests/ssim';
import { atTheApp, CANVAS } from './app';

const box = (width: number, height: number): string =>
  `scale=${width}:${height},pad=1920:1080:(ow-iw)/2:(oh-ih)/2:black`;
const SCOPE = box(1920, 800);
/** Words of a subtitle in the lower bar: strokes and gaps. */
const SUBTITLE = Array.from(
  { length: 40 },
  (_, i) => `drawbox=x=${560 + i * 20}:y=985:w=9:h=34:color=white:t=fill`,
).join(',');
const SLIVERS = ['x=0:y=0:w=iw:h=1', 'x=0:y=ih-1:w=iw:h=1', 'x=0:y=0:w=1:h=ih', 'x=iw-1:y=0:w=1:h=ih']
  .map((at) => `drawbox=${at}:color=black:t=fill`)
  .join(',');

/** Mean luma of rows or columns of a file, as ffmpeg measures it. @param part width:height:x:y */
function luma(file: string, part: string): number {
  const out = execFileSync('ffmpeg', [
    ...['-v', 'error', '-i', file, '-an'],
    ...[
      '-vf',
      `format=yuv444p,crop=${part},signalstats,metadata=mode=print:key=lavfi.signalstats.YAVG:file=-`,
    ],
    ...['-f', 'null', '-'],
  ]).toString();
  const values = [...out.matchAll(/YAVG=([\d.]+)/g)].map((match) => Number(match[1]));
  return values.reduce((sum, value) => sum + value, 0) / values.length;
}

const { width, height } = CANVAS;
/** Rows across the whole canvas, for {@link luma}. @param from the first of them. */
const rows = (count: number, from: number): string => `${width}:${count}:0:${from}`;

describe('a film with bars of its own', () => {
  const here = atTheApp();

  const bars = [
    ['letterbox', SCOPE, 'crop=450:800:735:140'],
    ['pillarbox', box(1440, 1080), 'crop=608:1080:656:0'],
    ['both', box(1280, 720), 'crop=405:720:757:180'],
    [
      'a logo in a bar',
      `${SCOPE},drawbox=x=1700:y=1000:w=120:h=40:color=white:t=fill`,
      'crop=450:800:735:140',
    ],
    ['a subtitle in a bar', `${SCOPE},${SUBTITLE}`, 'crop=450:800:735:140'],
  ] as const;
  it.each(drawn(bars, 1))('goes out without them: %s', async (name, filter, window) => {
    const file = filmed(name, filter);
    const made = await here.visitor.exportOf(file, CANVAS);
    // Judged from outside: cropdetect, the outermost rows beside those within, and ffmpeg's own crop of the window.
    expect(cropDetect(made)).toBe(`${width}:${height}:0:0`);
    expect(luma(made, rows(1, 0))).toBeGreaterThan(0.8 * luma(made, rows(4, 4)));
    expect(luma(made, rows(1, height - 1))).toBeGreaterThan(0.8 * luma(made, rows(4, height - 8)));
    expect(similarity(made, file, `${window},scale=${width}:${height}:flags=lanczos`).mean).toBeGreaterThan(
      0.9,
    );
  });

  const others: [string, () => Promise<void>][] = [
    [
      'without slivers of one sample',
      async () => {
        const made = await here.visitor.exportOf(filmed('slivers', SLIVERS), CANVAS);
        for (const [edge, within] of [
          [rows(1, 0), rows(2, 3)],
          [rows(1, height - 1), rows(2, height - 5)],
        ] as const)
          expect(luma(made, edge)).toBeGreaterThan(0.9 * luma(made, within));
      },
    ],
    [
      'without bars that come and go',
      async () => {
        const filter = `split[a][b];[a]trim=end_frame=30[c];[b]trim=start_frame=30,${SCOPE}[d];[c][d]concat`;
        const made = await here.visitor.exportOf(filmed('come-and-go', filter), CANVAS);
        expect(cropDetect(made)).toBe(`${width}:${height}:0:0`);
        expect(luma(made, rows(1, 0))).toBeGreaterThan(0.6 * luma(made, rows(4, 4)));
      },
    ],
    [
      'as it is where it is dark and has none',
      async () => {
        const file = filmed('dark', 'curves=all=0/0.01 1/0.16');
        const made = await here.visitor.exportOf(file, CANVAS);
        const window = `crop=608:1080:656:0,scale=${width}:${height}:flags=lanczos`;
        expect(similarity(made, file, window).mean).toBeGreaterThan(0.9);
      },
    ],
  ];
  it.each(drawn(others, 1))('goes out %s', (_, holds) => holds());
});
