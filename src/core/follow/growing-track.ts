import type { PictureRect } from '../picture/size';
import type { Sighting, SubjectKind, SubjectLook, Track } from './evidence';
import {
  createState,
  correctState,
  predictState,
  smoothSteps,
  type State,
  type FilterStep,
} from './motion-filter';
import { computeUnlikeness } from './track';

/** A track is worth something once it was seen so often. */
const MIN_SIGHTINGS = 3;
/** Detectors change their mind between an animal and a thing, but not between those and movement. */
export const toKindFamily = (kind: SubjectKind): string =>
  kind === 'face' || kind === 'motion' || kind === 'drawn' ? kind : 'object';

/** Standard deviation of a measured place and size, as a share of the subject's size. */
const getNoise = (kind: SubjectKind): number => (kind === 'motion' ? 0.16 : 0.08);
/** How much a subject's speed changes: variance a second, in its sizes a second. */
const SHAKE = 4;
/** Speed at which something may come in, in its sizes a second, and in pictures a second. */
const TOP_SPEED = { sizes: 2, pictures: 0.3 };

/** Standard deviation of a subject's size from one sample to the next, as a logarithm. */
const GROWTH = 0.35;
/** Cost of one level of difference in colour, and of another kind of the same family. */
const COLOUR_PRICE = 0.12;
const KIND_PRICE = 3;

/** Share of its size at one side that, when missing, makes a sighting a part of the subject. */
const PART = 0.06;
/** It is missing at one side where the one edge is this many times further off than the other. */
const ONE_SIDED = 2;
/** So near to the picture's edge nothing stands before it. */
const AT_EDGE = 0.015;
/** Factor by which its maximum size shrinks per second while it is not seen whole. */
const FADE = 0.92;
/** How much of a new size is taken. */
const GAIN = 0.4;
/** How unsure it is where all of it is, as a share of what is missing, and what it costs to be seen in part. */
const UNSURE = 0.2;
const PART_PRICE = 1;
/** A part of what is followed lies within it, give or take this share of its size, and is smaller than this share. */
const SLACK = 0.25;
export const PIECE_SHARE = 0.6;
type Axis = 'x' | 'y' | 'width' | 'height';
const AXES: readonly Axis[] = ['x', 'y', 'width', 'height'];
const SIDES = [
  ['x', 'width'],
  ['y', 'height'],
] as const;
/** Middle and size of a box. */
type Place = Record<Axis, number>;
const toPlace = ({ x, y, width, height }: PictureRect): Place => ({
  ...{ x: x + width / 2, y: y + height / 2, width, height },
});

const perAxis = <T>(of: (axis: Axis) => T): Record<Axis, T> => ({
  ...{ x: of('x'), y: of('y'), width: of('width'), height: of('height') },
});

/** A track while it is being made. */
export class GrowingTrack {
  readonly steps: Record<Axis, FilterStep[]> = { x: [], y: [], width: [], height: [] };
  readonly confidences: number[] = [];
  private readonly kinds = new Map<SubjectKind, number>();
  look: SubjectLook | null = null;
  private full: Place;
  lastSeen: number;
  sightings = 0;

  constructor(
    readonly family: string,
    sighting: Sighting,
    frame: number,
    private readonly rate: number,
  ) {
    const place = toPlace(sighting.box);
    for (const axis of AXES) {
      const size = this.sizeAlong(axis, place);
      const top = Math.max(TOP_SPEED.sizes * size, TOP_SPEED.pictures) / rate;
      const state = createState(place[axis], getNoise(sighting.kind) * size, top);
      this.steps[axis].push({ frame, before: state, after: state });
    }
    this.full = place;
    this.lastSeen = frame;
    this.count(sighting);
  }

  private sizeAlong(axis: Axis, place: Place): number {
    return axis === 'x' || axis === 'width' ? place.width : place.height;
  }

  get kind(): SubjectKind {
    return [...this.kinds].reduce((best, next) => (next[1] > best[1] ? next : best))[0];
  }

  private get last(): Place {
    const at = (axis: Axis) => (this.steps[axis][this.steps[axis].length - 1] as FilterStep).after.place;
    return {
      x: at('x'),
      y: at('y'),
      width: Math.max(1e-3, at('width')),
      height: Math.max(1e-3, at('height')),
    };
  }

  private predictState(axis: Axis, frame: number): State {
    const { after, frame: from } = this.steps[axis][this.steps[axis].length - 1] as FilterStep;
    const size = this.sizeAlong(axis, this.last);
    return predictState(after, frame - from, (SHAKE * size * size) / this.rate ** 3);
  }

  /** How large it is when all of it shows, at a frame: that fades, since it may have gone further away. */
  private fullSize(frame: number): Place {
    const fade = FADE ** ((frame - this.lastSeen) / this.rate);
    const { x, y, width, height } = this.full;
    return { x, y, width: width * fade, height: height * fade };
  }

  /** Where all of it is when a sighting shows a part of it: what is behind something is missing at one side. */
  private whole(seen: Place, frame: number): { place: Place; unsure: Place } {
    const full = this.fullSize(frame);
    const place = { ...seen };
    const unsure = perAxis(() => 0);
    // Of what moves now this part is seen, now that: at which side the rest is cannot be told.
    if (this.family === 'motion') return { place, unsure };
    for (const [axis, extent] of SIDES) {
      const less = full[extent] - seen[extent];
      if (less < PART * full[extent]) continue;
      const expected = this.predictState(axis, frame).place;
      // How far the two edges are inside of where they are expected.
      const before = seen[axis] - seen[extent] / 2 - (expected - full[extent] / 2);
      const after = expected + full[extent] / 2 - (seen[axis] + seen[extent] / 2);
      const [cut, kept] = before > after ? [before, after] : [after, before];
      if (cut < ONE_SIDED * Math.abs(kept)) continue;
      const side = before > after ? -1 : 1;
      const edge = seen[axis] + (side * seen[extent]) / 2;
      // At the picture's edge it goes out of the picture.
      if (edge < AT_EDGE || edge > 1 - AT_EDGE) continue;
      place[axis] = seen[axis] + (side * less) / 2;
      place[extent] = full[extent];
      unsure[axis] = UNSURE * less;
      unsure[extent] = UNSURE * less;
    }
    return { place, unsure };
  }

  /** Updates its full size after a sighting: that of the sighting if it showed whole. */
  private fullAfter(place: Place, unsure: Place, frame: number): Place {
    const full = this.fullSize(frame);
    const after = (extent: 'width' | 'height') =>
      unsure[extent] > 0 ? full[extent] : this.full[extent] + GAIN * (place[extent] - this.full[extent]);
    return { ...place, width: after('width'), height: after('height') };
  }

  /** Tells whether a sighting is a part of what is followed, beside another part that was taken. */
  holds({ kind, box }: Sighting, frame: number): boolean {
    if (this.family === 'motion' || toKindFamily(kind) !== this.family) return false;
    const full = this.fullSize(frame);
    const place = toPlace(box);
    return (
      SIDES.every(([axis, extent]) => {
        const reach = full[extent] / 2 + SLACK * full[extent];
        return Math.abs(place[axis] - this.predictState(axis, frame).place) + place[extent] / 2 <= reach;
      }) && place.width * place.height < PIECE_SHARE * full.width * full.height
    );
  }

  /** Computes the cost of taking a sighting for this subject; Infinity for one of another family. */
  computeCost({ kind, box, look }: Sighting, frame: number): number {
    if (toKindFamily(kind) !== this.family) return Infinity;
    const seen = toPlace(box);
    const { place, unsure } = this.whole(seen, frame);
    const off = (axis: 'x' | 'y'): number => {
      const state = this.predictState(axis, frame);
      const size = Math.max(this.sizeAlong(axis, place), this.sizeAlong(axis, this.last));
      const noise = getNoise(kind) * size + unsure[axis];
      return (place[axis] - state.place) ** 2 / (state.pp + noise * noise);
    };
    const { width, height } = this.last;
    const growth = Math.log((place.width * place.height) / (width * height)) / 2;
    const colour = this.look && look ? computeUnlikeness(this.look, look) * COLOUR_PRICE : 0;
    const other = kind === this.kind ? 0 : KIND_PRICE;
    const parts = (2 - seen.width / place.width - seen.height / place.height) * PART_PRICE;
    return off('x') + off('y') + (growth / GROWTH) ** 2 + colour + other + parts;
  }

  /** Goes on with a sighting, or without one for a sample. */
  goOn(sighting: Sighting | null, frame: number): void {
    const seen = sighting && toPlace(sighting.box);
    const { place, unsure } = seen ? this.whole(seen, frame) : { place: null, unsure: null };
    for (const axis of AXES) {
      const before = this.predictState(axis, frame);
      if (!sighting || !place || !unsure) {
        // What is hidden goes on, but it does not go on shrinking as it did when it went behind something.
        const held = this.family !== 'motion' && (axis === 'width' || axis === 'height');
        const after = held ? { ...before, place: this.last[axis], speed: 0 } : before;
        this.steps[axis].push({ frame, before: after, after });
        continue;
      }
      const known = getNoise(sighting.kind) * this.sizeAlong(axis, place);
      const noise = known / Math.max(0.3, sighting.confidence) ** 0.5 + unsure[axis];
      this.steps[axis].push({ frame, before, after: correctState(before, place[axis], noise) });
    }
    if (sighting && place && unsure) {
      this.full = this.fullAfter(place, unsure, frame);
      this.lastSeen = frame;
      this.count(sighting);
    } else this.confidences.push(0);
  }

  private count({ kind, confidence, look }: Sighting): void {
    this.sightings += 1;
    this.confidences.push(confidence);
    this.kinds.set(kind, (this.kinds.get(kind) ?? 0) + confidence);
    const known = this.look;
    this.look =
      known && look ? known.map((level, i) => level * 0.8 + (look[i] as number) * 0.2) : (look ?? known);
  }

  finish(): Track | null {
    if (this.sightings < MIN_SIGHTINGS) return null;
    const [x, y, width, height] = AXES.map((axis) => smoothSteps(this.steps[axis])) as [
      ...[number[], number[], number[], number[]],
    ];
    const points = this.steps.x.flatMap(({ frame }, i) => {
      if (frame > this.lastSeen) return [];
      const size = { width: Math.max(1e-3, width[i] as number), height: Math.max(1e-3, height[i] as number) };
      const box = { x: (x[i] as number) - size.width / 2, y: (y[i] as number) - size.height / 2, ...size };
      return [{ frame, box, confidence: this.confidences[i] ?? 0 }];
    });
    return { kind: this.kind, points, look: this.look };
  }
}
