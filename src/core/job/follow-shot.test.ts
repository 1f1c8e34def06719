import { type Evidence, noEvidence, type Track } from '../follow/evidence';
import { subjectAt } from '../follow/subjects';
import { PLAIN_WISHES } from '../framing/following';
import { keyframeAt } from '../framing/framing';
import { keyframeAdded, keyframeEased, keyframeMoved } from '../framing/keyframes';
import { windowMoved, zoomed } from '../framing/moves';
import { applyCommand } from './commands/commands';
import {
  boxAt,
  fileRange,
  followedSubjects,
  followTask,
  framingFollowed,
  framingOnBusy,
  framingToFollow,
  pinsOf,
  placeOf,
  subjectsIn,
} from './follow-shot';
import { shotsOf } from '../cut/master-shots';
import { sourceIn } from './job';
import { NO_REPAIRS } from '../master/repairs';
import { testJob } from './test-job';

const job = testJob();
const [shot] = shotsOf(job.edit.shots, sourceIn(job, job.masters[0]!.id));
const to = { shot: shot!, track: 'main', owner: 'shared' as const };
const track: Track = {
  kind: 'person',
  look: null,
  points: Array.from({ length: 100 }, (_, i) => ({
    frame: i * 2,
    confidence: i === 30 ? 0.9 : 0.5,
    box: { x: 0.2 + i * 0.004, y: 0.3, width: 0.1, height: 0.4 },
  })),
};
const evidence: Evidence = {
  ...noEvidence(job.masters[0]!.fingerprint),
  spans: [{ in: 0, out: shot!.out, tracks: [track], busy: { x: 0.6, y: 0.2, width: 0.2, height: 0.2 } }],
};
const subjects = subjectsIn(job, shot!, evidence);

describe('following in a job', () => {
  it('finds the subjects of a shot, and each again by where it was surest', () => {
    expect(subjects).toHaveLength(1);
    const place = placeOf(subjects[0]!);
    expect(place.frame).toBe(60);
    expect(subjectAt(subjects, place.frame, place)).toBe(subjects[0]);
    expect(boxAt(job, shot!, subjects[0]!, 60)?.box.x).toBeCloseTo(0.32, 6);
  });

  it('gives the path what it needs: windows of every canvas, pins, the zoom that is held', () => {
    const task = followTask(job, to, subjects, PLAIN_WISHES)!;
    expect(task).toMatchObject({ in: shot!.in, out: shot!.out, pins: [], zoom: 1, tilt: 0 });
    // 9:16 out of 16:9: (9/16)² of the width.
    expect(task.panes).toEqual([{ canvas: 'canvas-1', width: 0.31640625, height: 1, pixels: 1080 }]);
    expect(task.mostZoom).toBeCloseTo(2.5 / (1920 / 1080), 6);
    expect(followTask(job, to, [], PLAIN_WISHES)).toBeNull();
    const alone = { ...to, owner: { canvas: 'nowhere' } };
    expect(followTask(job, alone, subjects, PLAIN_WISHES)).toBeNull();
  });

  it('counts at the rate of the file', () => {
    expect(fileRange(job, shot!)).toEqual({ in: shot!.in, out: shot!.out });
    const slow = {
      ...job,
      masters: job.masters.map((master) => ({ ...master, rate: { num: 12000, den: 1001 } })),
    };
    const repaired = {
      ...slow,
      edit: { ...job.edit, repairs: { [job.masters[0]!.id]: { ...NO_REPAIRS, rate: job.masters[0]!.rate } } },
    };
    expect(fileRange(repaired, { ...shot!, in: 100, out: 200 })).toEqual({ in: 50, out: 100 });
  });

  const path = {
    keyframes: [0, 40].map((frame) => ({
      ...{ frame, focus: { x: 0.4, y: 0.5 }, seat: { x: 0.5, y: 0.5 }, zoom: 1, tilt: 0, ease: null },
      found: true as const,
    })),
    ...{ doubts: [], unserved: [], sure: [] },
  };
  const followed = () => framingFollowed(job, to, path, { subjects, wishes: PLAIN_WISHES });
  const ASPECTS = { pane: 9 / 16, live: 16 / 9 };

  it('remembers in the framing whom it follows', () => {
    const framing = followed();
    const edit = applyCommand(job.edit, {
      ...{ type: 'set-framings', act: 'follow', owner: 'shared', framings: [framing] },
    });
    const later = { ...job, edit };
    expect(framingToFollow(later, to)).toEqual(framing);
    expect(followedSubjects(subjects, framing.following!)).toEqual(subjects);
    expect(pinsOf(later, to)).toEqual([]);
  });

  it('takes a keyframe that a person set or moved for a pin, and no other', () => {
    const pins = (framing: ReturnType<typeof followed>) =>
      framing.keyframes.filter(({ found }) => !found).map(({ frame }) => frame);
    expect(pins(windowMoved(followed(), 40, { x: 0.1, y: 0 }, ASPECTS))).toEqual([40]);
    expect(pins(windowMoved(followed(), 'shot', { x: 0.1, y: 0 }, ASPECTS))).toEqual([0, 40]);
    expect(pins(zoomed(followed(), 'shot', 1.2, { x: 0.5, y: 0.5 }, ASPECTS))).toEqual([]);
    expect(pins(keyframeAdded(followed(), 20))).toEqual([20]);
    expect(pins(keyframeEased(followed(), 0, null))).toEqual([0]);
    expect(pins(keyframeMoved(followed(), 40, 44, shot!))).toEqual([44]);
  });

  it('can stay where most of what moves is', () => {
    const still = framingOnBusy(job, to, evidence)!;
    expect(still.keyframes).toHaveLength(1);
    expect(keyframeAt(still.keyframes, 0).focus).toEqual({ x: 0.7, y: expect.closeTo(0.3, 6) as number });
    expect(framingOnBusy(job, to, noEvidence('f'))).toBeNull();
  });
});
