import { execFileSync, spawnSync } from 'node:child_process';
import { statSync } from 'node:fs';
import path from 'node:path';
import { makeClip, packetsOf, probe } from '../tests/make-clip';
import { filmed } from '../tests/make-filmed';
import { HARD_FILMS, type HardFilm, hardFilm } from '../tests/hard-films';
import { drawn, soakFigure, trials } from '../tests/soak';
import { atTheApp, CANVAS } from './app';

const here = atTheApp();
/** How long the films are that land on a size. */
const SECONDS = trials(2, 8);
/** Pixels of the canvas as a share of the outlet's: rates that are asked for are as much smaller. */
const PIXELS = (CANVAS.width * CANVAS.height) / (1080 * 1920);
/** Megabytes a second of films that have no use for as many as others, or cannot be so small. */
const MEGABYTES: Partial<Record<HardFilm, number>> = {
  'evening sky': 1 / 8,
  'nearly still': 1 / 8,
  coarse: 5 / 2,
};
/** A square and two tall canvases of the lines that a 4K master has. */
const LARGE = [
  [2160, 2160],
  [2160, 3840],
  [1216, 2160],
] as const;

/** A grainy film with a quiet sound. */
function quietFilm(): string {
  const picture = filmed('encoded', 'null', { from: 0, seconds: 2 });
  const file = path.join(path.dirname(picture), 'encoded-quiet.mp4');
  const sound = [
    '-f',
    'lavfi',
    '-i',
    "aevalsrc='0.05*sin(2*PI*440*t)*(1+sin(2*PI*t))|0.04*sin(2*PI*554*t)':s=48000:d=2",
  ];
  const maps = ['-map', '0:v', '-map', '1:a', '-c:v', 'copy', '-c:a', 'aac', '-b:a', '192k'];
  execFileSync('ffmpeg', ['-y', '-v', 'error', '-i', picture, ...sound, ...maps, file]);
  return file;
}

const pick = (name: string) => here.visitor.page.getByRole('radio', { name, exact: true }).first().click();

/** Exports what the page shows, and clears its list for the next one. */
async function exported(button: string | RegExp): Promise<string> {
  const { visitor } = here;
  await visitor.press(button);
  // Coarse grain is made several times over before it lands on a size.
  await visitor.button('Download').waitFor({ timeout: 320_000 });
  await visitor.sees('Read back: as asked');
  const { file } = await visitor.download();
  await visitor.press('Delete');
  await visitor.button('Download').waitFor({ state: 'hidden' });
  return file;
}

/** Reads what Debian's mediainfo says of a track. */
function mediainfo(file: string, type: string): Record<string, string> {
  const { media } = JSON.parse(execFileSync('mediainfo', ['--Output=JSON', file]).toString()) as {
    media: { track: Record<string, string>[] };
  };
  return media.track.find((track) => track['@type'] === type) ?? {};
}

/** Integrated loudness in LUFS and true peak in dBTP, by ffmpeg's ebur128. */
function loudness(file: string): { integrated: number; peak: number } {
  const { stderr } = spawnSync('ffmpeg', ['-i', file, '-af', 'ebur128=peak=true', '-f', 'null', '-']);
  const summary = stderr.toString().split('Summary:')[1] ?? '';
  const figure = (name: RegExp) => Number(name.exec(summary)?.[1]);
  return { integrated: figure(/I:\s+(-?[\d.]+) LUFS/), peak: figure(/Peak:\s+(-?[\d.]+) dBFS/) };
}

describe('an export', () => {
  it('keeps a constant rate, a profile, a level, key frames and a loudness', async () => {
    const { visitor } = here;
    await visitor.bringIn(quietFilm());
    await visitor.step('Export');
    await visitor.press(/^Bit rate/);
    await pick('Constant');
    await visitor.type('Video bit rate', '6');
    await visitor.press(/^Key frames/);
    await visitor.type('Key frame every', '1');
    await pick('Main');
    await pick('4.2');
    await visitor.press(/^Sound/);
    await pick('The outlet’s, -14 LUFS');
    const file = await exported('Export to MP4');
    const [video] = probe(file);
    expect(video).toMatchObject({ codec_name: 'h264', profile: 'Main', level: 42 });
    expect(mediainfo(file, 'Video')).toMatchObject({ Format_Profile: 'Main', Format_Level: '4.2' });
    const packets = packetsOf(file);
    const seconds = [0, 1].map((from) => {
      const inside = packets.filter(({ time }) => time >= from - 1e-6 && time < from + 1 - 1e-6);
      return inside.reduce((sum, { bytes }) => sum + bytes, 0) * 8;
    });
    for (const bits of seconds) expect(Math.abs(bits / 6e6 - 1)).toBeLessThanOrEqual(0.05);
    const keys = packets.filter(({ key }) => key).map(({ time }) => time);
    expect(Math.max(...keys.slice(1).map((time, i) => time - keys[i]!))).toBeLessThanOrEqual(1.01);
    const { integrated, peak } = loudness(file);
    expect(Math.abs(integrated + 14)).toBeLessThanOrEqual(0.5);
    expect(peak).toBeLessThanOrEqual(-1);
  });

  const formats = [
    [
      'MOV, H.264 and AAC',
      'Export to MOV',
      { video: 'h264', audio: 'aac', general: { Format: 'MPEG-4', Format_Profile: 'QuickTime' } },
    ],
    ['WebM, VP9 and Opus', 'Export to WebM', { video: 'vp9', audio: 'opus', general: { Format: 'WebM' } }],
    ['MP4, AV1 and Opus', 'Export to MP4', { video: 'av1', audio: 'opus', general: { Format: 'MPEG-4' } }],
  ] as const;
  it.each(drawn(formats, 1))('is made as %s', async (name, button, wanted) => {
    const { visitor } = here;
    // A second tells as much of a format as two.
    await visitor.step('Length');
    await visitor.type('Last frame kept', '00:00:00:23');
    await visitor.resizeCanvas();
    await visitor.step('Export');
    await visitor.press(/^Bit rate/);
    await pick('Calculated');
    await visitor.press(/^Format/);
    await pick(name);
    const file = await exported(button);
    const [video, audio] = probe(file);
    expect([video?.codec_name, audio?.codec_name]).toEqual([wanted.video, wanted.audio]);
    expect(mediainfo(file, 'General')).toMatchObject(wanted.general);
  });

  it('is made on the server where the person says so, and leaves nothing there that they delete', async () => {
    const { visitor } = here;
    await visitor.page.reload();
    await visitor.press(/^Format/);
    await pick('MP4, H.264 and AAC');
    await visitor.press(/^Made/);
    await visitor.page.getByRole('radio', { name: /^On the server at / }).click();
    await visitor.sees(/encoded-quiet\.mp4 \([\d.]+ MB\) and this job go up to it/);
    await visitor.press(/^Bit rate/);
    await pick('Constant quality');
    const file = await exported('Export to MP4');
    // B frames, which the browser's encoder does not make.
    expect(probe(file)[0]).toMatchObject({ codec_name: 'h264', has_b_frames: 2 });
    await visitor.sees('Its masters are there already.');
    await pick('MP4, lossless H.264 and FLAC');
    await visitor.page.getByText('The size comes out of the picture').waitFor();
    const streams = probe(await exported('Export to MP4'));
    expect(streams.map(({ codec_name }) => codec_name)).toEqual(['h264', 'flac']);
    expect(streams[0]).toMatchObject({ profile: 'High 4:4:4 Predictive', pix_fmt: 'yuv420p' });
    await visitor.press('Delete from the server');
    await visitor.sees(/and this job go up to it/);
    await pick('In this browser');
    // A lossless copy is the server's alone.
    await visitor.sees('MP4, H.264 and AAC');
  });

  it('of the sound alone has no picture', async () => {
    const alone = here.visitor.page.getByRole('radio', { name: 'Sound alone, AAC', exact: true });
    if (!(await alone.isVisible())) await here.visitor.press(/^Format/);
    await alone.click();
    const streams = probe(await exported('Export the sound'));
    expect(streams.map(({ codec_name }) => codec_name)).toEqual(['aac']);
    expect(here.visitor.errors).toEqual([]);
  });

  it('has 2160 lines or more where its master has them', async () => {
    const { visitor } = here;
    await visitor.page.goto('/');
    await visitor.bringIn(makeClip('four-k.mp4', { size: '3840x2160', rate: '24', seconds: 0.5 }));
    for (const [width, height] of drawn(LARGE, 1)) {
      await visitor.resizeCanvas({ width, height });
      await visitor.step('Export');
      expect(probe(await exported('Export to MP4'))[0]).toMatchObject({ width, height, nb_frames: '12' });
    }
  });

  it.each(drawn(HARD_FILMS, 1))('lands on a size: %s', async (film) => {
    const { visitor } = here;
    await visitor.page.goto('/');
    await visitor.bringIn(hardFilm(film, SECONDS));
    await visitor.resizeCanvas();
    await visitor.step('Export');
    await visitor.press(/^Bit rate/);
    await pick('A size');
    const megabytes = (MEGABYTES[film] ?? 1 / 2) * SECONDS * PIXELS;
    await visitor.type('Size', megabytes.toFixed(2));
    const file = await exported('Export to MP4');
    const off = statSync(file).size / (megabytes * 1e6) - 1;
    soakFigure(
      `a size to land on in the browser, ${film}`,
      `${megabytes} MB asked, ${(100 * off).toFixed(1)} % off`,
    );
    expect(Math.abs(off)).toBeLessThanOrEqual(0.03);
  });
});
