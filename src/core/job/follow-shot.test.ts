import { testRateChange, testJob } from './test-job';
import { type Evidence, createEvidence, type Track } from '../follow/evidence';
import { findSubject } from '../follow/subjects';
import { DEFAULT_FOLLOW_OPTIONS } from '../framing/following';
import { findKeyframe } from '../framing/framing';
import { copyFraming, addKeyframe, easeKeyframe, moveKeyframe, removeMotion } from '../framing/keyframes';
import { checkJob } from '../check/check';
import { lookSignature } from '../check/shot-states';
import { SHIPPED_SHEETS } from '../outlets/shipped';
import { retimeEdit } from './retime';
import { computeSignature } from './signature';
import { moveWindow, zoomFraming } from '../framing/moves';
import { applyCommand } from './commands/commands';
import {
  findSubjectBox,
  toFileBox,
  fileRange,
  listFollowedSubjects,
  followTask,
  applyFollowing,
  placeOnBusyPart,
  framingToFollow,
  listPins,
  toFollowedPlace,
  shotsToFollow,
  listShotSubjects,
} from './follow-shot';
import { listShots } from '../cut/master-shots';
import { findSource } from './job';
import { NO_REPAIRS } from '../master/repairs';

const job = testJob();
const [shot] = listShots(job.edit.shots, findSource(job, job.masters[0]!.id));
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
  ...createEvidence(job.masters[0]!.fingerprint),
  spans: [{ in: 0, out: shot!.out, tracks: [track], busy: { x: 0.6, y: 0.2, width: 0.2, height: 0.2 } }],
};
const subjects = listShotSubjects(job, shot!, evidence);

describe('following in a job', () => {
  it('finds the subjects of a shot, and each again by where it was surest', () => {
    expect(subjects).toHaveLength(1);
    const place = toFollowedPlace(subjects[0]!);
    expect(place.frame).toBe(60);
    expect(findSubject(subjects, place.frame, place)).toBe(subjects[0]);
    expect(findSubjectBox(job, shot!, subjects[0]!, 60)?.box.x).toBeCloseTo(0.32, 6);
  });

  it('gives the path what it needs: windows of every canvas, pins, the zoom that is held', () => {
    const task = followTask(job, to, subjects, DEFAULT_FOLLOW_OPTIONS)!;
    expect(task).toMatchObject({ in: shot!.in, out: shot!.out, pins: [], zoom: 1, tilt: 0 });
    // 9:16 out of 16:9: (9/16)² of the width.
    expect(task.panes).toEqual([{ canvas: 'canvas-1', width: 0.31640625, height: 1, pixels: 1080 }]);
    expect(task.maxZoom).toBeCloseTo(2.5 / (1920 / 1080), 6);
    expect(followTask(job, to, [], DEFAULT_FOLLOW_OPTIONS)).toBeNull();
    const alone = { ...to, owner: { canvas: 'nowhere' } };
    expect(followTask(job, alone, subjects, DEFAULT_FOLLOW_OPTIONS)).toBeNull();
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
    ...{ doubts: [], unserved: [], places: [] },
  };
  const followed = () => applyFollowing(job, to, path, { subjects, wishes: DEFAULT_FOLLOW_OPTIONS });
  const ASPECTS = { pane: 9 / 16, live: 16 / 9 };

  it('remembers in the framing whom it follows', () => {
    const framing = followed();
    const edit = applyCommand(job.edit, {
      ...{ type: 'set-framings', act: 'follow', owner: 'shared', framings: [framing] },
    });
    const later = { ...job, edit };
    expect(framingToFollow(later, to)).toEqual(framing);
    expect(listFollowedSubjects(subjects, framing.following!)).toEqual(subjects);
    expect(listPins(later, to)).toEqual([]);
  });

  it('takes a keyframe that a person set or moved for a pin, and no other', () => {
    const pins = (framing: ReturnType<typeof followed>) =>
      framing.keyframes.filter(({ found }) => !found).map(({ frame }) => frame);
    expect(pins(moveWindow(followed(), 40, { x: 0.1, y: 0 }, ASPECTS))).toEqual([40]);
    expect(pins(moveWindow(followed(), 'shot', { x: 0.1, y: 0 }, ASPECTS))).toEqual([0, 40]);
    expect(pins(zoomFraming(followed(), 'shot', 1.2, { x: 0.5, y: 0.5 }, ASPECTS))).toEqual([]);
    expect(pins(addKeyframe(followed(), 20))).toEqual([20]);
    expect(pins(easeKeyframe(followed(), 0, null))).toEqual([0]);
    expect(pins(moveKeyframe(followed(), 40, 44, shot!))).toEqual([44]);
  });

  it('can stay where most of what moves is', () => {
    const still = placeOnBusyPart(job, to, evidence)!;
    expect(still.keyframes).toHaveLength(1);
    expect(findKeyframe(still.keyframes, 0).focus).toEqual({ x: 0.7, y: expect.closeTo(0.3, 6) as number });
    expect(placeOnBusyPart(job, to, createEvidence('f'))).toBeNull();
  });

  describe('of a master that a repair turns', () => {
    const turned = {
      ...job,
      edit: { ...job.edit, repairs: { [job.masters[0]!.id]: { ...NO_REPAIRS, rotation: 90 as const } } },
    };

    it('outlines a subject where it is on screen', () => {
      // A quarter turn clockwise: what was at the left is at the top, what was at the top is at the right.
      const box = findSubjectBox(turned, shot!, subjects[0]!, 0)!.box;
      expect(box).toEqual({
        x: expect.closeTo(1 - 0.3 - 0.4, 9) as number,
        y: expect.closeTo(0.2, 9) as number,
        width: 0.4,
        height: 0.1,
      });
    });

    it('finds the path in the turned picture, and a drawn box in the file', () => {
      const [live] = followTask(turned, to, subjects, DEFAULT_FOLLOW_OPTIONS)!.subjects;
      expect(live!.points[0]!.box.x).toBeCloseTo(0.3, 9);
      const shown = findSubjectBox(turned, shot!, subjects[0]!, 0)!.box;
      expect(toFileBox(turned, shot!, shown)).toEqual({
        ...{ x: expect.closeTo(0.2, 9) as number, y: expect.closeTo(0.3, 9) as number },
        ...{ width: 0.1, height: 0.4 },
      });
      expect(placeOnBusyPart(turned, to, evidence)!.keyframes[0]!.focus).toEqual({
        ...{ x: expect.closeTo(0.7, 6) as number, y: expect.closeTo(0.7, 6) as number },
      });
    });
  });

  it('looks only at shots that some clip keeps, those first that nobody framed', () => {
    const [first, second, third] = [0, 100, 200].map((start, i) => ({
      ...shot!,
      ...{ id: `s${i}`, in: start, out: start + 100 },
    }));
    const clip = { ...job.edit.clips[0]!, cut: [{ master: shot!.master, in: 120, out: 260 }] };
    const edit = { ...job.edit, clips: [clip], framings: [{ ...followed(), shot: 's1' }] };
    const { kept, untouched } = shotsToFollow({ edit }, [first!, second!, third!], 'main');
    expect(kept.map(({ id }) => id)).toEqual(['s1', 's2']);
    expect(untouched.map(({ id }) => id)).toEqual(['s2']);
  });

  it('lets go when a person says that the window stays, or copies another framing there', () => {
    expect(removeMotion(followed(), 0).following).toBeUndefined();
    const from = { framing: followed(), shot: shot!, frame: 0 };
    const there = { framing: followed(), shot: shot! };
    expect(copyFraming(from, there, 'all').following).toBeUndefined();
    expect(copyFraming(from, there, 'place').keyframes.some(({ found }) => found)).toBe(false);
    expect(copyFraming(from, there, 'zoom').keyframes.every(({ found }) => found)).toBe(true);
  });

  it('changes no signature where the picture is the same', () => {
    const { following: _following, ...same } = followed();
    const drawn = { ...same, keyframes: same.keyframes.map(({ found: _found, ...key }) => key) };
    const withFraming = (framing: typeof drawn) => ({ ...job.edit, framings: [framing] });
    expect(computeSignature(withFraming(followed()))).toBe(computeSignature(withFraming(drawn)));
    expect(lookSignature({ edit: withFraming(followed()) }, shot!)).toBe(
      lookSignature({ edit: withFraming(drawn) }, shot!),
    );
  });

  it('keeps its moments of doubt where they are when the rate is repaired, and gives them back', () => {
    const doubts = [{ in: 30, out: 60, why: 'unseen' as const }];
    const framing = applyFollowing(
      job,
      to,
      { ...path, doubts },
      { subjects, wishes: DEFAULT_FOLLOW_OPTIONS },
    );
    const edit = { ...job.edit, framings: [framing] };
    const { rate } = job.masters[0]!;
    const half = { num: rate.num, den: rate.den * 2 };
    const slow = retimeEdit(edit, job.masters[0]!.id, testRateChange(rate, half));
    expect(slow.framings[0]!.following!.doubts).toEqual([{ in: 15, out: 30, why: 'unseen' }]);
    expect(retimeEdit(slow, job.masters[0]!.id, testRateChange(half, rate)).framings).toEqual(edit.framings);
  });

  it('is judged by where the subject is, and not by where the window points', () => {
    const zone = { name: 'Band', x: 0, y: 0.6, width: 1, height: 0.1 };
    const sheets = SHIPPED_SHEETS.map((sheet) => ({
      ...sheet,
      placements: sheet.placements.map((placement) => ({
        ...placement,
        zones: { phone: [zone], tablet: [], desk: [] },
      })),
    }));
    const zones = (y: number) => {
      const places = [0, 40].map((frame) => ({ frame, x: 0.4, y }));
      const framing = applyFollowing(
        job,
        to,
        { ...path, places },
        { subjects, wishes: DEFAULT_FOLLOW_OPTIONS },
      );
      const work = { ...job, edit: { ...job.edit, framings: [framing] } };
      return checkJob(work, { sheets, passOf: () => null }).find(({ rule }) => rule === 'zones')!.code;
    };
    // The focus is in the middle of the height either way.
    expect(zones(0.65)).toBe('covered');
    expect(zones(0.3)).not.toBe('covered');
  });
});
