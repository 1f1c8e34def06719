import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { checkJob, listBlockingFindings, toJobEncodeSettings, planOfJob } from '../src/core/check/check';
import { applyCommand, type Command } from '../src/core/job/commands/commands';
import { changeCanvas } from '../src/core/job/canvases';
import type { Words } from '../src/core/job/clip';
import { activeClip, type Job, newJob } from '../src/core/job/job';
import { createFramingCommand, TEST_SOUND, testMaster } from '../src/core/job/test-job';
import { testPass } from '../src/core/job/test-pass';
import { AUDIENCES, type Audience } from '../src/core/outlets/audience';
import { chooseCanvasSize, findPlacement } from '../src/core/outlets/outlets';
import type { Placement } from '../src/core/outlets/placement';
import type { RuleSheet } from '../src/core/outlets/rule-sheet';
import { SHIPPED_SHEETS } from '../src/core/outlets/shipped';
import { exportSound } from '../src/core/render/export-sound';
import { FORMATS } from '../src/core/rate/format';
import { findLevel } from '../src/core/rate/level';
import { plannedFrame } from '../src/core/render/plan';
import type { FrameRate } from '../src/core/time/frame-rate';
import { seeded, SEED, soakFigure, trials } from '../tests/soak';
import { Client, openTestServer, type TestServer } from './test-client';

const COUNT = trials(8, 200);
const OUTLET = 'trial';
const random = seeded(SEED);
const chance = (share: number): boolean => random() < share;
const pick = <T>(values: readonly T[]): T => values[Math.floor(random() * values.length)] as T;

const short = findPlacement(SHIPPED_SHEETS, 'verrow/short')!.placement;
const SIZES = [
  { width: 96, height: 96 },
  { width: 90, height: 160 },
  { width: 128, height: 160 },
];
const RATES: FrameRate[] = [
  { num: 24000, den: 1001 },
  { num: 25, den: 1 },
  { num: 30, den: 1 },
  { num: 60, den: 1 },
];
/** Video bits a second that are asked for, and that the file really has: filled up where the picture needs fewer. */
const BITS = 1_000_000;

/** A placement and what is made for it. */
interface Trial {
  placement: Placement;
  rate: FrameRate;
  frames: number;
  commands: Command[];
  silent: boolean;
}

/** Limits at which the clip is just legal, and now and then one that it breaks. */
function trial(n: number): Trial {
  const rate = pick(RATES);
  const frames = 8 + Math.floor(random() * 20);
  const seconds = (frames * rate.den) / rate.num;
  const breaks = () => chance(0.025);
  const size = pick(SIZES);
  const silent = chance(0.2);
  const most = seconds - (breaks() ? rate.den / rate.num : 0);
  const placement: Placement = {
    ...short,
    id: `trial-${n}`,
    sizes: chance(0.5)
      ? { kind: 'one', size }
      : { kind: 'several', sizes: [size, pick(SIZES), { width: 640, height: 640 }] },
    bars: pick(['refused', 'discouraged']),
    length: {
      least: breaks() ? most + 0.5 : null,
      most: breaks() ? most : Math.max(most, seconds),
      best: null,
    },
    mostBytes: breaks() ? 2000 : 100_000_000,
    containers: breaks() ? ['webm', 'mov'] : ['mp4', 'mov'],
    video: {
      ...short.video,
      codecs: breaks() ? ['av1'] : ['avc', 'hevc'],
      profiles: breaks() ? ['baseline'] : ['main', 'high'],
      mostLevel: breaks() ? 22 : pick([30, 42]),
      mostBits: breaks() ? BITS / 2 : chance(0.5) ? null : BITS * 2,
      mostRate: breaks() ? { num: 20, den: 1 } : rate,
    },
    audio: {
      ...short.audio,
      required: chance(0.3),
      codecs: breaks() ? ['opus'] : ['aac'],
      sampleRates: breaks() ? [44_100] : [48_000],
      leastChannels: pick([1, 2]),
      mostChannels: breaks() ? 2 : 6,
      leastBits: pick([null, 96_000]),
    },
    words: {
      title: 10 + Math.floor(random() * 10),
      description: { most: 20, seen: 10 },
      tags: { most: 3, characters: 8, required: pick([null, 'upright']) },
    },
    audiences: breaks() ? ['friends', 'public'] : [...AUDIENCES],
    childrenStatement: chance(0.5),
    longVideo: pick(['none', 'welcome', 'needed']),
  };
  const text = (most: number) =>
    '🪁é'.repeat(most).slice(0, 3 * most - (chance(0.85) ? 3 * (most % 2) + 3 : -3));
  const words: Words = {
    title: chance(0.08) ? ' ' : text(Math.ceil(placement.words.title / 2)),
    description: text(10),
    tags: [
      ...(chance(0.85) ? ['Upright'] : []),
      ...(breaks() ? ['a', 'b', 'c', 'd'] : ['kites']),
      ...(breaks() ? ['toolongtag'] : []),
    ],
    ...(chance(0.85) ? { forChildren: chance(0.5) } : {}),
    ...(chance(0.7) ? { longVideo: chance(0.85) ? 'https://longshelf.example/kites' : 'no address' } : {}),
  };
  const commands: Command[] = [
    { type: 'set-words', words },
    { type: 'set-video-bits', bits: BITS },
    { type: 'set-audience', audience: pick<Audience>(['private', 'public']) },
  ];
  if (chance(0.15)) commands.push(createFramingCommand({}, { fit: true }));
  return { placement, rate, frames, commands, silent };
}

/** The job of a trial, on a canvas of the placement's size or, now and then, another. */
function jobOf({ placement, rate, frames, commands, silent }: Trial, sheet: RuleSheet): Job {
  const sound = silent ? { audio: null, audioTracks: [], soundTrack: null } : { audio: TEST_SOUND };
  const master = testMaster({ rate, frames, ...sound });
  const job = newJob({
    id: 'trial',
    title: 'Trial',
    now: '2026-11-01T10:00:00.000Z',
    master,
    sheets: [sheet],
  });
  const target = findPlacement([sheet], `${OUTLET}/${placement.id}`)!;
  const size = chance(0.08) ? { width: 64, height: 64 } : chooseCanvasSize(target);
  const canvas = { ...changeCanvas(activeClip(job.edit), 'canvas-1', { ...size, placement: target.key }) };
  const edit = [{ type: 'set-canvases', act: 'size', ...canvas } as Command, ...commands].reduce(
    applyCommand,
    job.edit,
  );
  return { ...job, edit };
}

const folder = mkdtempSync(path.join(tmpdir(), 'verdicts-'));

/** The file that an export of the job is, made by ffmpeg of what its plan says. */
function fileOf(job: Job, sheet: RuleSheet): Buffer {
  const plan = planOfJob(job, [sheet]);
  const { width, height, rate, frames } = plan;
  const [pane] = plannedFrame(plan, 0).panes;
  const { x, y, width: w, height: h } = pane!.picture;
  const level = findLevel(plan, rate, BITS)!;
  const sound = exportSound(plan);
  const seconds = (frames * rate.den) / rate.num;
  const tone = `sine=f=440:r=${sound?.sampleRate}:d=${seconds}`;
  const cbr = `nal-hrd=cbr:filler=1:vbv-maxrate=${BITS / 1000}:vbv-bufsize=${BITS / 4000}`;
  const { container } = FORMATS[toJobEncodeSettings(job, { sheets: [sheet] }).format];
  const file = path.join(folder, `clip.${container}`);
  const picture = `testsrc2=s=${w}x${h}:r=${rate.num}/${rate.den}`;
  execFileSync('ffmpeg', [
    ...['-y', '-v', 'error', '-f', 'lavfi', '-i', picture, ...(sound ? ['-f', 'lavfi', '-i', tone] : [])],
    ...['-frames:v', String(frames), '-vf', `format=yuv420p,pad=${width}:${height}:${x}:${y}`],
    ...['-c:v', 'libx264', '-profile:v', 'high', '-level', (level / 10).toFixed(1), '-b:v', String(BITS)],
    ...[
      '-x264-params',
      cbr,
      ...(sound ? ['-c:a', 'aac', '-b:a', '160k', '-ac', String(sound.channels)] : []),
    ],
    file,
  ]);
  return readFileSync(file);
}

describe('a verdict before sending', () => {
  const made = Array.from({ length: COUNT }, (_, n) => trial(n));
  const sheet: RuleSheet = {
    ...SHIPPED_SHEETS[0]!,
    outlet: OUTLET,
    placements: made.map(({ placement }) => placement),
  };
  let server: TestServer;
  beforeAll(async () => {
    server = await openTestServer(undefined, { sheets: [sheet] });
  });
  afterAll(() => server.close());

  it('is that of the outlet after it, for files and posts made right and wrong', async () => {
    const client = await new Client(server.origin).signIn(OUTLET);
    let refused = 0;
    for (const [n, one] of made.entries()) {
      const job = jobOf(one, sheet);
      const clip = activeClip(job.edit);
      const known = { sheets: [sheet], passOf: () => testPass() };
      const stops = listBlockingFindings(
        checkJob(job, known),
        { overrides: [], canvas: clip.canvas },
        'post',
      );
      const upload = await client.upload(`/outlets/${OUTLET}/api/uploads`, fileOf(job, sheet));
      const { title, description, tags, forChildren = null, longVideo = null } = clip.words;
      const form = { title, description, tags, forChildren, longVideo, audience: clip.audience, cover: null };
      const answer = await client.posted(OUTLET, { ...form, placement: one.placement.id, upload });
      const reasons = answer.state === 'refused' ? answer.reasons : [];
      if (reasons.length > 0) refused += 1;
      const told = { n, stops: stops.map(({ rule, code }) => `${rule}: ${code}`), reasons };
      // Which of them stops what may differ: that anything does must not.
      expect({ ...told, stopped: stops.length > 0 }).toEqual({ ...told, stopped: reasons.length > 0 });
    }
    soakFigure(
      'verdicts',
      `${COUNT} files and posts, ${refused} refused, and each as the check before sending said`,
    );
    expect(refused).toBeGreaterThan(0);
    expect(refused).toBeLessThan(COUNT);
  });
});
