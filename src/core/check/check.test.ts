import { LOOKED } from '../job/test-pass';
import { applyCommand } from '../job/commands/commands';
import { activeClip, type Job } from '../job/job';
import { findTarget } from '../outlets/outlets';
import { choose, createFramingCommand, keep, testJob, testRange, TEST_SOUND } from '../job/test-job';
import { PLAIN_ENCODING } from '../rate/encoding';
import { exportSound } from '../render/export-sound';
import { checkJob, listBlockingFindings, toJobEncodeSettings, planOfJob } from './check';
import { type Finding, findingWords, measuredWords } from './finding';
import { fixCommand } from './fixes';
import { type RuleId, RULES } from './rules';

const find = (job: Job, rule: RuleId): Finding =>
  checkJob(job, LOOKED).find((finding) => finding.rule === rule) as Finding;
const change = (job: Job, command: Parameters<typeof applyCommand>[1]): Job => ({
  ...job,
  edit: applyCommand(job.edit, command),
});
/** A finding's fix, applied. */
function fixed(job: Job, rule: RuleId): Job {
  const { fix } = find(job, rule);
  if (!fix) throw new Error(`${rule} offers no fix`);
  return change(job, fixCommand(fix));
}

describe('length', () => {
  // At 23.976 fps 1438 frames last 59.98 s and 1439 last 60.02 s (1001/24000 s each).
  it('is legal at the limit and not one frame over it; the fix trims to the limit', () => {
    const job = testJob({ frames: 3000 });
    const kept = change(job, keep(10, 1448));
    expect(find(kept, 'length').severity).toBe('note');
    const over = change(job, keep(10, 1449));
    expect(find(over, 'length')).toMatchObject({ severity: 'stop', code: 'over', values: { limit: 60 } });
    expect(activeClip(fixed(over, 'length').edit).cut).toEqual([testRange(10, 1448)]);
    expect(find(fixed(over, 'length'), 'length').severity).toBe('note');
  });

  it('passes inside the best range', () => {
    expect(find(testJob({ frames: 400 }), 'length').severity).toBe('pass');
  });
});

it('leaves room for an end card where it trims to the limit', () => {
  const job = change(testJob({ frames: 3000 }), {
    type: 'set-card',
    card: { seconds: 2, colour: '#1F2B33' },
  });
  expect(find(job, 'length').severity).toBe('stop');
  expect(find(fixed(job, 'length'), 'length').severity).not.toBe('stop');
  expect(activeClip(fixed(job, 'length').edit).text?.card?.seconds).toBe(2);
});

describe('coverage', () => {
  it('stops a barred clip where bars are refused, warns elsewhere, and one tap fills it', () => {
    const barred = change(testJob(), createFramingCommand({}, { fit: true }));
    expect(find(barred, 'coverage')).toMatchObject({
      severity: 'stop',
      code: 'bars',
      values: { bare: 1, shots: 1 },
    });
    const elsewhere = change(barred, choose('tesselle/square'));
    expect(find(elsewhere, 'coverage').severity).toBe('warn');
    expect(find(fixed(barred, 'coverage'), 'coverage').severity).toBe('pass');
  });
});

describe('rate', () => {
  it('stops what the outlet does not take, warns of another than the master has', () => {
    const fast = testJob({ rate: { num: 60, den: 1 } });
    expect(find(fast, 'rate').severity).toBe('pass');
    expect(find(change(fast, choose('tesselle/square')), 'rate').code).toBe('over');
    const job = testJob();
    const other = change(job, { type: 'set-rate', rate: { num: 30, den: 1 } });
    expect(find(other, 'rate').code).toBe('differs');
    expect(find(fixed(other, 'rate'), 'rate').code).toBe('same');
    expect(find(testJob({ constantRate: false, repeated: 3, dropped: 1 }), 'rate')).toMatchObject({
      code: 'varies',
      values: { cost: '3 frames repeat, 1 vanish' },
    });
  });
});

describe('size and enlargement', () => {
  it('stops a canvas of another size, and takes the right one', () => {
    const job = testJob();
    const clip = activeClip(job.edit);
    const canvases = clip.canvases.map((canvas) => ({ ...canvas, height: 1900 }));
    const odd = { ...job, edit: { ...job.edit, clips: [{ ...clip, canvases }] } };
    expect(find(odd, 'size').severity).toBe('stop');
    expect(find(fixed(odd, 'size'), 'size').severity).toBe('pass');
  });

  it('measures the worst enlargement', () => {
    const { values } = find(testJob(), 'enlargement') as Extract<Finding, { rule: 'enlargement' }>;
    expect(values.worst).toBeCloseTo(1920 / 1080, 6);
    const small = testJob({ picture: { width: 854, height: 480 } });
    expect(find(small, 'enlargement')).toMatchObject({ severity: 'warn', code: 'soft' });
    expect(find(testJob({ picture: { width: 3840, height: 2160 } }), 'enlargement').code).toBe('spare');
  });
});

describe('file size', () => {
  it('stops a file over the cap, and the fix is under it', () => {
    const job = change(testJob({ frames: 1400 }), { type: 'set-video-bits', bits: 50_000_000 });
    expect(find(job, 'file-size').severity).toBe('stop');
    expect(find(fixed(job, 'file-size'), 'file-size').severity).toBe('pass');
  });

  it('has no fix where no bit rate is low enough', () => {
    const long = change(testJob({ frames: 60_000 }), { type: 'set-video-bits', bits: 50_000_000 });
    expect(find(long, 'file-size')).toMatchObject({ severity: 'stop', code: 'over-long' });
  });
});

describe('sound and words', () => {
  it('tells what happens to the sound', () => {
    const audio = { ...TEST_SOUND, channels: 6 };
    expect(find(testJob({ audio: null }), 'audio')).toMatchObject({
      code: 'missing',
      values: { chosen: true },
    });
    expect(find(testJob({ audio }), 'sound-format').code).toBe('folded');
    const fine = testJob({ audio: { ...audio, channels: 2, sampleRate: 96000 } });
    expect(find(fine, 'sound-format').code).toBe('resampled');
    // By the outlet's rule: one takes mono, the other wants two channels.
    const mono = testJob({ audio: { ...audio, channels: 1 } });
    expect(find(mono, 'sound-format').code).toBe('widened');
    expect(exportSound(planOfJob(mono, LOOKED.sheets))?.channels).toBe(2);
    const kept = change(mono, choose('tesselle/square'));
    expect(find(kept, 'sound-format').code).toBe('kept');
    expect(exportSound(planOfJob(kept, LOOKED.sheets))?.channels).toBe(1);
  });

  it('wants a title that fits and the required tag', () => {
    const job = testJob();
    const titled = (title: string) =>
      change(job, { type: 'set-words', words: { ...activeClip(job.edit).words, title } });
    expect(find(titled('  '), 'title').code).toBe('missing');
    expect(find(titled('x'.repeat(101)), 'title').code).toBe('over');
    expect([...fixed(titled('😀'.repeat(101)), 'title').edit.clips[0]!.words.title]).toHaveLength(100);
    expect(find(job, 'tag')).toMatchObject({ severity: 'stop', holds: 'post' });
    expect(find(fixed(job, 'tag'), 'tag').severity).toBe('pass');
  });
});

it('keeps both of two fixes that were found before either was applied', () => {
  const job = testJob();
  const [tag, children] = (['tag', 'children'] as const).map((rule) => find(job, rule).fix);
  const both = change(change(job, fixCommand(children!)), fixCommand(tag!));
  expect(activeClip(both.edit).words).toMatchObject({ tags: ['upright'], forChildren: false });
});

describe('holding back', () => {
  it('lets the export go when only the post is held, and both once overridden by name', () => {
    const job = testJob();
    const findings = checkJob(job, LOOKED);
    const canvas = 'canvas-1';
    const none = { overrides: [], canvas };
    const reason = 'seen to by hand';
    const tagged = { overrides: ['tag', 'children'].map((rule) => ({ rule, canvas, reason })), canvas };
    expect(listBlockingFindings(findings, none, 'export')).toEqual([]);
    expect(listBlockingFindings(findings, none, 'post').map((finding) => finding.rule)).toEqual([
      'tag',
      'children',
    ]);
    expect(listBlockingFindings(findings, tagged, 'post')).toEqual([]);
    const barred = checkJob(change(job, createFramingCommand({}, { fit: true })), LOOKED);
    expect(listBlockingFindings(barred, tagged, 'post').map((finding) => finding.rule)).toEqual(['coverage']);
  });

  it('holds a lossless copy to nothing that an outlet takes', () => {
    const encoding = { ...PLAIN_ENCODING, maker: 'server' as const, format: 'lossless' as const };
    const job = change(testJob(), { type: 'set-encoding', canvases: ['canvas-1'], encoding });
    const findings = checkJob(job, LOOKED);
    expect(listBlockingFindings(findings, { overrides: [], canvas: 'canvas-1' }, 'export')).toEqual([]);
    expect(find(job, 'level')).toMatchObject({ severity: 'pass', code: 'lossless' });
    // No rate is asked of it, whatever was set before.
    expect(toJobEncodeSettings(job, LOOKED).picture).toMatchObject({ kind: 'lossless', level: null });
    expect(toJobEncodeSettings(job, LOOKED).sound).toMatchObject({ codec: 'flac' });
  });

  it('goes by the canvas: what is let pass on one stops another', () => {
    const overrides = [{ rule: 'coverage', canvas: 'canvas-1', reason: 'bars are wanted' }];
    const barred = checkJob(change(testJob(), createFramingCommand({}, { fit: true })), LOOKED);
    expect(listBlockingFindings(barred, { overrides, canvas: 'canvas-1' }, 'export')).toEqual([]);
    expect(
      listBlockingFindings(barred, { overrides, canvas: 'canvas-2' }, 'export').map(
        (finding) => finding.rule,
      ),
    ).toEqual(['coverage']);
  });
});

it('has words and figures for every finding of every kind of job', () => {
  const jobs = [
    testJob(),
    testJob({ frames: 90_000, audio: null, constantRate: false, picture: { width: 320, height: 180 } }),
    testJob({
      rate: { num: 120, den: 1 },
      audio: { ...TEST_SOUND, codec: 'opus', sampleRate: 44100, channels: 8 },
    }),
    change(testJob(), createFramingCommand({}, { fit: true })),
    change(testJob(), choose('tesselle/portrait')),
  ];
  for (const job of jobs) {
    const target = findTarget(LOOKED.sheets, activeClip(job.edit).canvases[0]!);
    const findings = checkJob(job, LOOKED);
    expect(findings.map((finding) => finding.rule)).toEqual(Object.keys(RULES));
    for (const finding of findings) {
      expect(findingWords(finding, target)).toMatch(/\.$/);
      expect(measuredWords(finding)).not.toMatch(/NaN|undefined|null/);
    }
  }
});
