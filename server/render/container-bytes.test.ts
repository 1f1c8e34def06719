import { mkdtempSync, statSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { containerBytes } from '../../src/core/rate/container-bytes';
import { type FormatId, FORMATS } from '../../src/core/rate/format';
import { makeClip, packetBytes } from '../../tests/make-clip';
import { smallOrder } from '../../tests/small-order';
import { renderFile } from './render';

const folder = mkdtempSync(path.join(tmpdir(), 'container-'));

// Outside reference: ffprobe, which counts what frames and packets of sound take of a file.
describe('what a container takes', () => {
  it.each<[FormatId, Parameters<typeof makeClip>[1]]>([
    ['mp4-avc', { seconds: 3, channels: 0 }],
    ['mp4-avc', { seconds: 3 }],
    ['mp4-avc', { seconds: 9, rate: '60' }],
    ['mov-avc', { seconds: 6, rate: '25' }],
    ['webm-vp9', { seconds: 6 }],
    ['sound', { seconds: 9 }],
  ])(
    'is reckoned of %s, %p',
    async (format, clip) => {
      const order = await smallOrder(makeClip('clip.mp4', clip), {
        format,
        rate: { kind: 'quality', quantiser: 40 },
      });
      const to = path.join(folder, `made.${FORMATS[format].extension}`);
      await renderFile(order, { folder: `${to}.parts`, to, signal: new AbortController().signal });
      const pieces = packetBytes(to);
      const taken = statSync(to).size - pieces.reduce((sum, one) => sum + one, 0);
      const reckoned = containerBytes(FORMATS[format].container, pieces.length);
      expect(Math.abs(reckoned / taken - 1)).toBeLessThan(0.12);
    },
    60_000,
  );
});
