import { execFileSync, spawnSync } from 'node:child_process';
import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { type FaultyFilm, faultyFilms, FRAMES, SOUND_PICTURE } from '../tests/faulty-shots';
import { cropDetect, probe } from '../tests/make-clip';
import { lagOf, soundOf } from '../tests/sound-lag';
import { drawn, soakFigure, trials } from '../tests/soak';
import { similarity } from '../tests/ssim';
import { atTheApp } from './app';

/** Output frames of each shot: 1.2 seconds at 30 a second. */
const SHOT = (FRAMES * 30) / 25;
/** Samples of each shot. */
const SAMPLES = (FRAMES * 48000) / 25;

const CANVASES = [
  { name: 'Verrow Short', width: 1080, height: 1920 },
  { name: 'Tesselle Square', width: 1080, height: 1080 },
  { name: 'Tesselle Portrait', width: 1080, height: 1350 },
];

/** The window in the middle of the whole height, on whole samples, as the canvas shows it. */
function windowOf(film: FaultyFilm, { width, height }: { width: number; height: number }): string {
  const chroma = 'in_h_chr_pos=0:out_h_chr_pos=0:in_v_chr_pos=128:out_v_chr_pos=128';
  return `${film.bare},crop=ih*${width}/${height}:ih,scale=${width}:${height}:flags=lanczos:${chroma},format=yuv420p`;
}

/** The whole picture, and its outer 16 rows and columns by themselves. */
const PARTS = {
  whole: 'null',
  top: 'crop=iw:16:0:0',
  bottom: 'crop=iw:16:0:ih-16',
  left: 'crop=16:ih:0:0',
  right: 'crop=16:ih:iw-16:0',
};

/** Runs a file's picture through filters, without loss. */
function filtered(file: string, filter: string, to: string): void {
  const lossless = ['-an', '-fps_mode', 'passthrough', '-c:v', 'libx264', '-qp', '0', '-preset', 'ultrafast'];
  execFileSync('ffmpeg', ['-y', '-v', 'error', '-i', file, '-vf', filter, ...lossless, to]);
}

describe('films, each with a fault of its own, in one clip for three canvases at another rate', () => {
  const here = atTheApp();
  const folder = mkdtempSync(path.join(tmpdir(), 'made-'));
  const films = faultyFilms(trials(2, 12));
  const made: Record<string, string> = {};

  it('come in, are cut and are exported in one go', async () => {
    const { visitor } = here;
    const [first, ...others] = films;
    await visitor.bringIn(first?.file ?? '');
    for (const { file } of others) {
      await visitor.step('Master');
      const [chooser] = await Promise.all([
        visitor.page.waitForEvent('filechooser'),
        visitor.press('Add another master'),
      ]);
      await chooser.setFiles(file);
      await visitor.button(`Master ${path.basename(file)}`).waitFor();
      await visitor.step('Length');
      await visitor.page.getByRole('radio', { name: 'Shots' }).click();
      await visitor.press('Keep this shot in the cut');
    }
    await visitor.step('Canvas');
    await visitor.press('Another rate');
    await visitor.press('Use 30');
    for (const { name } of CANVASES.slice(1)) {
      await visitor.press('Add a canvas');
      await visitor.page.getByRole('radio', { name, exact: true }).click();
    }
    // Edges that are less than sure are the person's to take.
    await visitor.step('Check');
    const bars = () => visitor.finding('Bars in the master');
    await expect(async () => (await bars()) !== 'Bars in the master: unknown').toBecomeTrue();
    // One master after another; what is found follows a change by a moment.
    const take = visitor.button('Use the edges that were found').first();
    await expect(async () => {
      if (await take.isVisible()) await take.click({ timeout: 1000 }).catch(() => undefined);
      return (await bars()) === 'Bars in the master: pass';
    }).toBecomeTrue();
    await visitor.step('Export');
    await visitor.setBitRate('16', 'all');
    await visitor.press('Export all 3 in one go');
    for (const file of await visitor.downloadAll(3)) {
      const [video] = probe(file);
      made[`${video?.width}x${video?.height}`] = file;
    }
    expect(visitor.errors).toEqual([]);
  }, 900_000);

  describe.each(drawn(CANVASES, 1))('on $name', (canvas) => {
    const { width, height } = canvas;
    const file = () => made[`${width}x${height}`] ?? '';
    const scores: Record<string, Record<string, number>> = {};

    // Judged from outside: ffprobe.
    it('is as asked', () => {
      const [video, audio] = probe(file());
      const frames = String(SHOT * films.length);
      expect(video).toMatchObject({ width, height, nb_frames: frames, r_frame_rate: '30/1' });
      expect(audio).toMatchObject({ codec_name: 'aac', channels: 2 });
    });

    // Judged from outside: cropdetect, and SSIM in luma against ffmpeg's own window. Chroma is left out: at a sliver
    // of one sample ffmpeg's is half bar.
    it.each(films.map((film, i) => [film.name, i] as const))('has no bars in the shot of %s', (name, i) => {
      const film = films[i] as FaultyFilm;
      const shot = path.join(folder, 'shot.mp4');
      filtered(file(), `trim=start_frame=${i * SHOT}:end_frame=${(i + 1) * SHOT},setpts=PTS-STARTPTS`, shot);
      expect(cropDetect(shot)).toBe(`${width}:${height}:0:0`);
      // Every sixth frame shows every fifth of the master: 30 and 25 a second.
      const wanted = `${windowOf(film, canvas)},select=not(mod(n\\,5))`;
      scores[name] = {};
      for (const [part, crop] of Object.entries(PARTS)) {
        const ours = path.join(folder, 'ours.mp4');
        filtered(shot, `select=not(mod(n\\,6)),setpts=N/24/TB,${crop}`, ours);
        const { worst, frames } = similarity(ours, film.file, `${wanted},${crop}`, 'Y');
        expect(frames).toBe(FRAMES / 5);
        scores[name][part] = worst;
      }
    });

    it('is as good at each edge of each shot as where the master has no fault', () => {
      const plain = scores[SOUND_PICTURE] ?? {};
      let worst = 0;
      for (const { name, slack } of films) {
        for (const part of Object.keys(PARTS)) {
          const [found, wanted] = [scores[name]?.[part] ?? 0, (plain[part] ?? 1) - slack];
          expect([name, part, found >= wanted || found]).toEqual([name, part, true]);
          worst = Math.max(worst, (plain[part] ?? 1) - found);
        }
      }
      soakFigure(
        `films with a fault each, ${canvas.name}`,
        `${films.length} shots without bars, SSIM at most ${worst.toFixed(3)} under the faultless one's, whole and at each edge`,
      );
    });

    it('sounds in step after every cut, to the sample', () => {
      for (const [i, film] of films.entries()) {
        const lag = lagOf(soundOf(film.file, 4800, 16_000), soundOf(file(), i * SAMPLES + 4800, 16_000));
        expect([film.name, lag]).toEqual([film.name, 0]);
      }
    });

    // Judged from outside: ffmpeg's ebur128 (EBU R 128, ITU-R BS.1770).
    it('is under full scale', () => {
      const args = ['-hide_banner', '-i', file(), '-vn', '-af', 'ebur128=peak=true', '-f', 'null', '-'];
      const { stderr } = spawnSync('ffmpeg', args, { encoding: 'utf8' });
      expect(Number(/Peak:\s+(-?[\d.]+) dBFS\s*$/.exec(stderr.trimEnd())?.[1])).toBeLessThan(0);
    });
  });
});
