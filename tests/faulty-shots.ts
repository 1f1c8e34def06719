import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { encodeFilm } from './encode-film';
import { turnClip } from './make-clip';
import { TAGS } from './make-specimen';

const folder = mkdtempSync(path.join(tmpdir(), 'faults-'));
/** Frames of each film, at 25 a second. */
export const FRAMES = 30;
/** The film whose picture has no fault. */
export const SOUND_PICTURE = '7.1';

/** A film with one fault, and how ffmpeg makes what should be seen of it. */
export interface FaultyFilm {
  name: string;
  file: string;
  /** Filters from the decoded film to its bare upright picture in BT.709 and limited range. */
  bare: string;
  /** By how much its SSIM may be under that of the film without a fault of the picture. */
  slack: number;
}

const PLAIN = 'null';

interface Recipe {
  name: string;
  /** Filters from the drawn picture to what is stored. */
  filter: string;
  bare?: string;
  rate?: string;
  output?: string[];
  sound?: string[];
  turned?: boolean;
  slack?: number;
}

/** Of 640 and of 480 lines 9:16, 1:1 and 4:5 are whole samples, in the middle of the sides that are chosen here. */
const RECIPES: readonly Recipe[] = [
  {
    name: SOUND_PICTURE,
    filter: PLAIN,
    sound: ['-af', 'pan=7.1|c0=c0|c1=c1|c2=0.5*c0|c3=0*c0|c4=0*c0|c5=0*c0|c6=0*c0|c7=0*c0'],
  },
  // Less picture is enlarged more.
  { name: 'letterbox', filter: 'crop=1148:480,pad=1148:648:0:84', bare: 'crop=1148:480:0:84', slack: 0.1 },
  {
    name: 'slivers',
    filter: 'format=yuv444p,pad=1282:642:1:1,format=yuv420p',
    bare: 'format=yuv444p,crop=1280:640:1:1',
  },
  {
    name: 'interlaced',
    rate: '50',
    filter: 'tinterlace=interleave_top,fieldorder=tff,format=yuv420p',
    output: ['-flags', '+ildct+ilme', '-x264opts', 'tff=1'],
  },
  {
    name: 'HLG',
    filter: 'format=yuv420p10le,setparams=color_primaries=bt2020:color_trc=arib-std-b67:colorspace=bt2020nc',
    bare: 'format=yuv420p',
    output: [
      ...['-c:v', 'libsvtav1', '-preset', '8', '-crf', '12', '-color_primaries', 'bt2020'],
      ...['-color_trc', 'arib-std-b67', '-colorspace', 'bt2020nc'],
    ],
    // Its light is another: what is judged here is that the picture lies where it should.
    slack: 0.14,
  },
  { name: 'pillarbox', filter: 'crop=860:640,pad=1280:640:210:0', bare: 'crop=860:640:210:0' },
  {
    name: 'full range',
    filter: 'scale=out_range=full',
    bare: 'scale=in_range=pc:out_range=tv,format=yuv420p',
    output: ['-color_range', 'pc'],
  },
  {
    name: 'BT.601',
    filter: 'scale=in_color_matrix=bt709:out_color_matrix=bt601',
    bare: 'scale=in_color_matrix=bt601:out_color_matrix=bt709',
    output: ['-colorspace', 'smpte170m', '-color_primaries', 'smpte170m', '-color_trc', 'smpte170m'],
  },
  { name: '10 bits', filter: 'format=yuv420p10le', bare: 'format=yuv420p' },
  {
    name: 'half the lines',
    filter: 'scale=1280:320,setsar=1/2',
    bare: 'scale=1280:640:flags=lanczos,setsar=1',
  },
  { name: 'turned', filter: 'transpose=2', turned: true },
  {
    name: 'varying rate',
    filter: "select='not(eq(n,3)+eq(n,7)+eq(n,8)+eq(n,21))'",
    output: ['-fps_mode', 'vfr'],
    bare: 'fps=25',
  },
];

/** Makes the first so many films: each draws the same moving picture with a mark at a place of its own, and has its own sweep. */
export function faultyFilms(count: number): FaultyFilm[] {
  return RECIPES.slice(0, count).map((recipe, i) => {
    const { name, filter, bare = PLAIN, rate = '25', output = [], sound = [], slack = 0.05 } = recipe;
    const file = path.join(folder, `${name.replace(/\W/g, '-')}.mp4`);
    const seconds = FRAMES / 25;
    const mark = `drawbox=x=${520 + 18 * i}:y=${60 + 40 * i}:w=60:h=60:color=white:t=fill`;
    const tone = `0.2*sin(2*PI*(${200 + 40 * i}*t+${300 + 25 * i}*t*t))`;
    encodeFilm(file, [
      ...['-f', 'lavfi', '-i', `testsrc2=s=640x320:r=${rate}:d=${seconds}`],
      ...['-f', 'lavfi', '-i', `aevalsrc='${tone}|${tone}':s=48000:d=${seconds}`],
      ...['-vf', `scale=1280:640:flags=bicubic,${mark},format=yuv420p,${filter}`],
      ...['-c:v', 'libx264', '-preset', 'fast', '-crf', '10', '-g', '25', '-bf', '2', ...TAGS],
      ...['-c:a', 'aac', '-b:a', name === SOUND_PICTURE ? '512k' : '160k', ...sound, ...output],
    ]);
    if (recipe.turned) turnClip(file);
    return { name, file, bare, slack };
  });
}
