import { z } from 'zod';
import { frameCount } from '../figures/bounded';
import { type Cut, type Range, rangeSchema } from '../cut/cut';
import { type Shot, shotSchema } from '../cut/shot';
import { type Framing, framingSchema } from '../framing/framing';
import { compareRates, type FrameRate, frameRateSchema, rateValue, scaleFrames } from '../time/frame-rate';
import type { ClipText } from '../words/clip-text';
import type { Spans } from '../words/spans';
import type { Edit } from './job';

/** Places as they were counted at another rate of their master, before they were mapped from it. */
const placesSchema = z.object({
  rate: frameRateSchema,
  shots: z.array(shotSchema).optional(),
  framings: z.array(framingSchema).optional(),
  /** Ranges of the master, in playing order. */
  ranges: z.array(rangeSchema).optional(),
  /** Of shots that were found right. */
  ticks: z.record(z.string(), z.string()).optional(),
});
/** By what holds the places: the shots, their ticks, the shared framings, a canvas's own, a clip's cut, or its words. */
export const keptPlacesSchema = z.record(z.string(), placesSchema);
type Places = z.infer<typeof placesSchema>;
type KeptPlaces = z.infer<typeof keptPlacesSchema>;

/** A rate of a master, and how many frames it has at that. */
const pacedSchema = z.object({ rate: frameRateSchema, frames: frameCount() });
type RatedFrames = z.infer<typeof pacedSchema>;
/** A change of a master's rate. */
export const rateChangeSchema = z.object({ before: pacedSchema, after: pacedSchema });
export type RateChange = z.infer<typeof rateChangeSchema>;

/** How a master's rate changes from one source of it to another. */
export const toRateChange = (before: RatedFrames, after: RatedFrames): RateChange => ({
  before: { rate: before.rate, frames: before.frames },
  after: { rate: after.rate, frames: after.frames },
});

const same = (a: unknown, b: unknown): boolean => JSON.stringify(a) === JSON.stringify(b);

/**
 * An edit whose places in one master mean the same moments after the master's rate changed. What cannot be placed at
 * the new rate, and what was rounded, is kept: it comes back exactly with the rate, unless it was changed meanwhile.
 */
export function retimeEdit(edit: Edit, master: string, { before, after }: RateChange): Edit {
  if (compareRates(before.rate, after.rate) === 0) return edit;
  const known = edit.retimed?.[master] ?? {};
  const next: KeptPlaces = {};
  const shotsBefore = edit.shots.filter((shot) => shot.master === master);
  /** Maps one holder's places from where they were first counted. */
  const mapped = (
    key: string,
    now: Omit<Places, 'rate'>,
    map: Mapping,
    shown = map,
  ): Omit<Places, 'rate'> => {
    const kept = known[key];
    const untouched = kept && same(shown(kept, kept.rate, before), now);
    const origin: Places = untouched ? kept : { ...now, rate: before.rate };
    if (compareRates(origin.rate, after.rate) !== 0) next[key] = origin;
    return map(origin, origin.rate, after);
  };
  const shots = mapped('shots', { shots: shotsBefore }, mapShots).shots ?? [];
  const isOwn = (shot: string) =>
    shotsBefore.some(({ id }) => id === shot) ||
    (known.shots?.shots ?? []).some(({ id }) => id === shot) ||
    shot.startsWith(`${master}-`);
  const framings = (key: string, all: readonly Framing[]): Framing[] => {
    const own = { framings: all.filter(({ shot }) => isOwn(shot)) };
    const placed = mapped(key, own, mapFramings(shots), mapFramings(shotsBefore)).framings ?? [];
    return [...all.filter(({ shot }) => !isOwn(shot)), ...placed];
  };
  const ticks = (all: Edit['ticks']): Edit['ticks'] => {
    const own = { ticks: withTicksOf(all, isOwn) };
    const placed = mapped('ticks', own, mapTicks(shots), mapTicks(shotsBefore)).ticks;
    return { ...withTicksOf(all, (shot) => !isOwn(shot)), ...placed };
  };
  /** Ranges with the master's mapped; those of others lie where they lay. */
  const retimeCut = (key: string, all: Cut): Cut => {
    const ranges = all.filter((range) => range.master === master);
    if (ranges.length === 0) return all;
    const placed = mapped(key, { ranges }, mapRanges).ranges ?? [];
    return all.map((range) => placed[ranges.indexOf(range)] ?? range);
  };
  const text = (key: string, all: ClipText): ClipText => {
    const covers = all.cover
      ? [{ master: all.cover.master, in: all.cover.frame, out: all.cover.frame + 1 }]
      : [];
    const spans = [
      ...covers,
      ...all.blocks.flatMap((block) => block.spans ?? []),
      ...all.captions.cues.flatMap((cue) => cue.spans),
    ];
    const placed = retimeCut(key, spans);
    let next = covers.length;
    const [cover] = placed.slice(0, next);
    const own = (old: Spans): Spans => placed.slice(next, (next += old.length));
    return {
      ...all,
      ...(cover && { cover: { master: cover.master, frame: cover.in } }),
      blocks: all.blocks.map((block) => (block.spans ? { ...block, spans: own(block.spans) } : block)),
      captions: {
        ...all.captions,
        cues: all.captions.cues.map((cue) => ({ ...cue, spans: own(cue.spans) })),
      },
    };
  };
  const moved: Edit = {
    ...edit,
    shots: [...edit.shots.filter((shot) => shot.master !== master), ...shots],
    ticks: ticks(edit.ticks),
    framings: framings('framings', edit.framings),
    clips: edit.clips.map((clip) => ({
      ...clip,
      cut: retimeCut(`cut ${clip.id}`, clip.cut),
      ...(clip.text && { text: text(`text ${clip.id}`, clip.text) }),
      // A canvas that ran at the master's rate goes on doing so.
      canvases: clip.canvases.map((canvas) => ({
        ...canvas,
        detached: framings(`canvas ${clip.id} ${canvas.id}`, canvas.detached),
        rate: compareRates(canvas.rate, before.rate) === 0 ? after.rate : canvas.rate,
      })),
    })),
  };
  return withKept(moved, master, next);
}

/** Places at one rate as places at another, inside the master. */
type Mapping = (places: Omit<Places, 'rate'>, from: FrameRate, to: RatedFrames) => Omit<Places, 'rate'>;

function withKept(edit: Edit, master: string, kept: KeptPlaces): Edit {
  const { retimed: all, ...rest } = edit;
  const others = Object.entries(all ?? {}).filter(([id]) => id !== master);
  const now = Object.keys(kept).length > 0 ? [...others, [master, kept] as const] : others;
  return now.length > 0 ? { ...rest, retimed: Object.fromEntries(now) } : rest;
}

const toPlace = (frame: number, from: FrameRate, to: FrameRate): number =>
  Math.round((frame * rateValue(to)) / rateValue(from));

/** Shots without gap or overlap: one that is shorter than a frame of the new rate has no place there. */
const mapShots: Mapping = ({ shots = [] }, from, { rate: to, frames }) => {
  const end = Math.min(frames, scaleFrames(shots[shots.length - 1]?.out ?? 0, from, to));
  const starts = shots.map((shot) => Math.min(toPlace(shot.in, from, to), end));
  const toOut = (i: number) => starts[i + 1] ?? end;
  return {
    shots: shots.flatMap((shot, i): Shot[] => {
      const first = starts[i] ?? 0;
      return toOut(i) > first ? [{ ...shot, in: first, out: toOut(i) }] : [];
    }),
  };
};

const withTicksOf = (ticks: Edit['ticks'], isKept: (shot: string) => boolean): Edit['ticks'] =>
  Object.fromEntries(Object.entries(ticks).filter(([shot]) => isKept(shot)));

/** Tells whether a shot has a place; a master without shots of its own is one shot. */
const isThere = (shots: readonly Shot[], shot: string): boolean =>
  shots.length === 0 || shots.some(({ id }) => id === shot);

/** Ticks of the shots that are there. */
const mapTicks =
  (shots: readonly Shot[]): Mapping =>
  ({ ticks = {} }) => ({ ticks: withTicksOf(ticks, (shot) => isThere(shots, shot)) });

/**
 * Framings of the shots that are there, with keyframes at the same moments; of those that fall on one frame the last
 * has a place there.
 */
const mapFramings =
  (shots: readonly Shot[]): Mapping =>
  ({ framings = [] }, from, { rate: to }) => ({
    framings: framings
      .filter(({ shot }) => isThere(shots, shot))
      .map((framing) => {
        const placed = framing.keyframes.map((key) => ({ ...key, frame: toPlace(key.frame, from, to) }));
        const keyframes = placed.filter((key, i) => placed[i + 1]?.frame !== key.frame);
        const { following } = framing;
        if (!following) return { ...framing, keyframes };
        const doubts = following.doubts.map((doubt) => {
          const first = toPlace(doubt.in, from, to);
          return { ...doubt, in: first, out: Math.max(first + 1, toPlace(doubt.out, from, to)) };
        });
        const moved = following.places.map((place) => ({ ...place, frame: toPlace(place.frame, from, to) }));
        const places = moved.filter((place, i) => moved[i + 1]?.frame !== place.frame);
        return { ...framing, keyframes, following: { ...following, places, doubts } };
      }),
  });

/** Ranges at the same moments, at least a frame each, inside the master. */
const mapRanges: Mapping = ({ ranges = [] }, from, { rate: to, frames }) => ({
  ranges: ranges.map((range): Range => {
    const end = Math.min(frames, scaleFrames(range.out, from, to));
    const first = Math.min(toPlace(range.in, from, to), end - 1);
    const out = Math.min(frames, toPlace(range.out, from, to));
    return { ...range, in: first, out: Math.max(first + 1, out) };
  }),
});
