import { useMemo, useState } from 'react';
import { masterLengths } from '@core/check/check';
import { type Cut, type Range, findRangeIndex } from '@core/cut/cut';
import {
  type Edge,
  moveRange,
  removeRange,
  rollEdit,
  slipRange,
  split,
  trimRange,
} from '@core/cut/range-edits';
import { type SnapPoint, snapPoints } from '@core/cut/snap';
import { listShots } from '@core/cut/master-shots';
import type { Shot } from '@core/cut/shot';
import type { Source } from '@core/master/source';
import { dispatch } from '@state/job';
import { player, usePlayer } from '@state/player';
import { useClip, useJob, useLooks, useSource } from '../job/job-context';

/** Cut of a clip, and the ways to change it. */
export interface CutTools {
  cut: Cut;
  /** The range that is worked on, and its place. */
  index: number;
  range: Range;
  /** The master on screen. */
  source: Source;
  shots: Shot[];
  points: SnapPoint[];
  select(index: number): void;
  /** Moves an end of the range; `frame` is the first or the last kept. Shown while it is dragged, kept when done. */
  trim(edge: Edge, frame: number, done: boolean, joins?: string): void;
  /** The end being dragged, or null. */
  dragged: Edge | null;
  split(): void;
  remove(): void;
  move(to: number): void;
  moveFrom(from: number, to: number): void;
  slip(by: number): void;
  /** Moves the cut between the range before and this one. */
  roll(by: number): void;
  add(range: Range): void;
}

/** Tools on the clip's cut. While an end is dragged the cut is the dragged one. */
export function useCut(): CutTools {
  const job = useJob();
  const clip = useClip();
  const source = useSource();
  const [chosen, setChosen] = useState(0);
  const [draft, setDraft] = useState<{ edge: Edge; cut: Cut } | null>(null);
  const passOf = useLooks(job.masters);
  const lengths = useMemo(() => masterLengths(job), [job]);
  const shots = useMemo(() => listShots(job.edit.shots, source), [job.edit, source]);
  const pauses = passOf(source.fingerprint)?.sound?.pauses;
  const points = useMemo(
    () => snapPoints(shots, pauses ?? [], source.rate, source.frames),
    [shots, pauses, source.rate, source.frames],
  );
  const { cut } = clip;
  const index = Math.min(chosen, cut.length - 1);
  const range = (draft?.cut ?? cut)[index] as Range;
  const set = (
    act: 'in-point' | 'out-point' | 'split' | 'remove' | 'move' | 'slip' | 'roll' | 'add',
    next: Cut,
    joins?: string,
  ) => dispatch(job.id, { type: 'set-cut', act, cut: next }, joins);
  const moveFrom = (from: number, to: number) => {
    if (to < 0 || to >= cut.length || to === from) return;
    set('move', moveRange(cut, from, to));
    setChosen(to);
  };
  return {
    cut: draft?.cut ?? cut,
    index,
    range,
    source,
    shots,
    points,
    dragged: draft?.edge ?? null,
    select(index) {
      setChosen(index);
      const range = cut[index];
      if (range) player.showFrame(range.in, range.master);
    },
    trim(edge, frame, done, joins) {
      const next = trimRange(cut, index, edge, frame, lengths(range.master).frames);
      const shown = next[index] as Range;
      player.showFrame(edge === 'in' ? shown.in : shown.out - 1, range.master);
      setDraft(done ? null : { edge, cut: next });
      if (done) set(edge === 'in' ? 'in-point' : 'out-point', next, joins);
    },
    split() {
      const { frame, master } = usePlayer.getState();
      const index = findRangeIndex(cut, master, frame);
      if (index < 0) return;
      set('split', split(cut, index, frame));
      setChosen(index + (frame > (cut[index]?.in ?? 0) ? 1 : 0));
    },
    remove() {
      set('remove', removeRange(cut, index));
      setChosen(Math.max(0, index - 1));
    },
    move: (to) => moveFrom(index, to),
    moveFrom,
    slip(by) {
      const next = slipRange(cut, index, by, lengths(range.master).frames);
      set('slip', next, `slip-${index}`);
      player.showFrame((next[index] as Range).in, range.master);
    },
    roll(by) {
      if (index === 0) return;
      const next = rollEdit(cut, index - 1, by, lengths(range.master).frames);
      set('roll', next, `roll-${index}`);
      player.showFrame((next[index] as Range).in, range.master);
    },
    add(more) {
      set('add', [...cut, more]);
      setChosen(cut.length);
    },
  };
}
