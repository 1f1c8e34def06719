import { execFileSync } from 'node:child_process';
import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { mapCodes } from '../src/kernel/colour-cube';
import { probe } from '../tests/make-clip';
import { drawn } from '../tests/soak';
import { atTheApp } from './app';

const folder = mkdtempSync(path.join(tmpdir(), 'colour-'));

/** A film of three flat fields of 10-bit codes, tagged as told. */
function fields(name: string, codes: [number, number, number][], transfer: string): string {
  const file = path.join(folder, `${name}.mp4`);
  const pick = (plane: number) =>
    codes.reduceRight((rest, code, i) => `if(lt(X,W*${i + 1}/${codes.length}),${code[plane]},${rest})`, '0');
  const tags = `color_primaries=bt2020:color_trc=${transfer}:colorspace=bt2020nc:range=tv`;
  const graph = `format=yuv420p10le,geq=lum='${pick(0)}':cb='${pick(1)}':cr='${pick(2)}',setparams=${tags}`;
  execFileSync('ffmpeg', [
    ...['-y', '-v', 'error', '-f', 'lavfi', '-i', 'nullsrc=s=1920x1080:r=24:d=1.5', '-vf', graph],
    ...[
      '-c:v',
      'libsvtav1',
      '-preset',
      '10',
      '-crf',
      '20',
      '-color_primaries',
      'bt2020',
      '-color_trc',
      transfer,
    ],
    ...['-colorspace', 'bt2020nc', '-color_range', 'tv', file],
  ]);
  return file;
}

/** Mean codes of a part of a file's first second. */
function codesOf(file: string, crop: string): number[] {
  const keys = ['YAVG', 'UAVG', 'VAVG'];
  const out = execFileSync('ffmpeg', [
    ...['-v', 'error', '-i', file, '-an', '-frames:v', '5'],
    ...['-vf', `crop=${crop},signalstats,metadata=mode=print:file=-`, '-f', 'null', '-'],
  ]).toString();
  return keys.map((key) => {
    const values = [...out.matchAll(new RegExp(`signalstats.${key}=([\\d.]+)`, 'g'))].map((m) =>
      Number(m[1]),
    );
    return values.reduce((sum, value) => sum + value, 0) / values.length;
  });
}

describe('a master in another colour', () => {
  const here = atTheApp();
  // Reference white, a shadow, and a red that BT.709 has too.
  const codes: [number, number, number][] = [
    [572, 512, 512],
    [280, 512, 512],
    [440, 490, 560],
  ];

  const masters = [
    ['PQ', 'smpte2084', 'pq', /high dynamic range \(PQ\)/],
    ['HLG', 'arib-std-b67', 'hlg', /high dynamic range \(HLG\)/],
    ['BT.2020', 'bt2020-10', 'bt709', /has the colours of BT\.2020/],
  ] as const;
  it.each(drawn(masters, 1))(
    '%s is told, and goes out in BT.709 with its light where it belongs',
    async (name, trc, transfer, words) => {
      const { visitor } = here;
      await visitor.page.goto('/');
      await visitor.bringIn(fields(name, codes, trc));
      await visitor.step('Canvas');
      await visitor.page.getByRole('radio', { name: 'Tesselle Square' }).click();
      await visitor.step('Check');
      await visitor.sees(words);
      await visitor.step('Master');
      await visitor.has('img', 'The clip');
      await visitor.has('img', 'The master, as this browser draws it');
      await visitor.step('Export');
      await visitor.exportClip();
      const { file } = await visitor.download();
      expect(probe(file)[0]).toMatchObject({
        color_primaries: 'bt709',
        color_transfer: 'bt709',
        color_space: 'bt709',
      });
      // The middle field lies in the middle of every canvas.
      const facts = { matrix: 'bt2020-ncl', primaries: 'bt2020', transfer, fullRange: false };
      const wanted = mapCodes(facts, codes[1]!.map((code) => code / 4) as [number, number, number]);
      const { width, height } = probe(file)[0] as { width: number; height: number };
      const found = codesOf(file, `64:64:${width / 2 - 32}:${height / 2 - 32}`);
      found.forEach((code, i) => expect(Math.abs(code - wanted[i]!)).toBeLessThanOrEqual(2.5));
    },
  );
});
