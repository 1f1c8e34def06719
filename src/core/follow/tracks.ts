import type { PictureRect } from '../picture/size';
import { assigned } from './assignment';
import type { Sample, Sighting, SubjectKind, SubjectLook, Track } from './evidence';
import { begun, corrected, predicted, smoothed, type State, type Step } from './motion-filter';
import { joined } from './join-tracks';
import { overlap, unlikeness } from './track';

/** A subject that is not seen for this long, in seconds, is gone. */
const HOLD = 1.6;
/** A track is worth something once it was seen so often. */
const LEAST_SIGHTINGS = 3;
/** Two sightings of the same place are one: the surer one. */
const SAME_PLACE = 0.6;

/** How sure a sighting has to be to begin a track; what is less sure may still go on with one. */
const BEGINS: Record<SubjectKind, number> = {
  ...{ face: 0.6, person: 0.35, animal: 0.35, vehicle: 0.35, thing: 0.3, motion: 0.3, drawn: 0 },
};

/** Detectors change their mind between an animal and a thing, but not between those and movement. */
const familyOf = (kind: SubjectKind): string =>
  kind === 'face' || kind === 'motion' || kind === 'drawn' ? kind : 'object';

/** Standard deviation of a measured place and size, as a share of the subject's size. */
const noiseOf = (kind: SubjectKind): number => (kind === 'motion' ? 0.16 : 0.08);
/** How much a subject's speed changes: variance a second, in its sizes a second. */
const SHAKE = 4;
/** Speed at which something may come in, in its sizes a second, and in pictures a second. */
const TOP_SPEED = { sizes: 2, pictures: 0.3 };

/** How far off a sighting may be: squared distance in standard deviations, with what else tells the two apart. */
const GATE = 16;
/** Standard deviation of a subject's size from one sample to the next, as a logarithm. */
const GROWTH = 0.35;
/** What one level of difference in colour costs, and another kind of the same family. */
const COLOUR_PRICE = 0.12;
const KIND_PRICE = 3;

type Axis = 'x' | 'y' | 'width' | 'height';
const AXES: readonly Axis[] = ['x', 'y', 'width', 'height'];
/** Middle and size of a box. */
type Place = Record<Axis, number>;
const placeOf = ({ x, y, width, height }: PictureRect): Place => ({
  ...{ x: x + width / 2, y: y + height / 2, width, height },
});

const perAxis = <T>(of: (axis: Axis) => T): Record<Axis, T> => ({
  ...{ x: of('x'), y: of('y'), width: of('width'), height: of('height') },
});

/** A track while it is being made. */
class Growing {
  readonly steps: Record<Axis, Step[]> = { x: [], y: [], width: [], height: [] };
  readonly confidences: number[] = [];
  private readonly kinds = new Map<SubjectKind, number>();
  look: SubjectLook | null = null;
  lastSeen: number;
  sightings = 0;

  constructor(
    readonly family: string,
    sighting: Sighting,
    frame: number,
    private readonly rate: number,
  ) {
    const place = placeOf(sighting.box);
    for (const axis of AXES) {
      const size = this.sizeAlong(axis, place);
      const top = Math.max(TOP_SPEED.sizes * size, TOP_SPEED.pictures) / rate;
      const state = begun(place[axis], noiseOf(sighting.kind) * size, top);
      this.steps[axis].push({ frame, before: state, after: state });
    }
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
    const at = (axis: Axis) => (this.steps[axis][this.steps[axis].length - 1] as Step).after.place;
    return {
      x: at('x'),
      y: at('y'),
      width: Math.max(1e-3, at('width')),
      height: Math.max(1e-3, at('height')),
    };
  }

  private stateAt(axis: Axis, frame: number): State {
    const { after, frame: from } = this.steps[axis][this.steps[axis].length - 1] as Step;
    const size = this.sizeAlong(axis, this.last);
    return predicted(after, frame - from, (SHAKE * size * size) / this.rate ** 3);
  }

  /** How much is missing of a subject along an axis: what comes out from behind something is seen in part. */
  private missing(axis: Axis, place: Place): number {
    return Math.max(0, this.sizeAlong(axis, this.last) - this.sizeAlong(axis, place));
  }

  /** What it costs to take a sighting for this subject; Infinity where it cannot be. */
  costOf({ kind, box, look }: Sighting, frame: number): number {
    if (familyOf(kind) !== this.family) return Infinity;
    const place = placeOf(box);
    const off = (axis: 'x' | 'y'): number => {
      const state = this.stateAt(axis, frame);
      const size = Math.max(this.sizeAlong(axis, place), this.sizeAlong(axis, this.last));
      const noise = noiseOf(kind) * size + this.missing(axis, place) / 2;
      return (place[axis] - state.place) ** 2 / (state.pp + noise * noise);
    };
    const { width, height } = this.last;
    const growth = Math.log((place.width * place.height) / (width * height)) / 2;
    const colour = this.look && look ? unlikeness(this.look, look) * COLOUR_PRICE : 0;
    const other = kind === this.kind ? 0 : KIND_PRICE;
    const cost = off('x') + off('y') + (growth / GROWTH) ** 2 + colour + other;
    return cost < GATE ? cost : Infinity;
  }

  /** Goes on with a sighting, or without one for a sample. */
  goOn(sighting: Sighting | null, frame: number): void {
    const place = sighting && placeOf(sighting.box);
    const missing = place && perAxis((axis) => this.missing(axis, place));
    for (const axis of AXES) {
      const before = this.stateAt(axis, frame);
      if (!sighting || !place || !missing) {
        // What is hidden goes on, but it does not go on shrinking as it did when it went behind something.
        const after = axis === 'x' || axis === 'y' ? before : { ...before, place: this.last[axis], speed: 0 };
        this.steps[axis].push({ frame, before: after, after });
        continue;
      }
      const known = noiseOf(sighting.kind) * this.sizeAlong(axis, place);
      const noise = known / Math.max(0.3, sighting.confidence) ** 0.5 + missing[axis];
      this.steps[axis].push({ frame, before, after: corrected(before, place[axis], noise) });
    }
    if (sighting) {
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
    if (this.sightings < LEAST_SIGHTINGS) return null;
    const [x, y, width, height] = AXES.map((axis) => smoothed(this.steps[axis])) as [
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

/**
 * The subjects of one shot: sightings joined over time, each sample's by the cheapest assignment to where a filter of
 * even motion expects the subjects. One that hides is held for a while; a cut ends all, so samples are of one shot.
 *
 * @param rate the frames that samples count in, a second.
 */
export function tracksOf(samples: readonly Sample[], rate: number): Track[] {
  const ended: Growing[] = [];
  let growing: Growing[] = [];
  for (const sample of samples) {
    const { frame } = sample;
    const seen = distinct(sample.seen);
    // Where detectors did not look, nothing can be said of what only they see.
    const looked = growing.filter(({ family }) => sample.detected || family === 'motion');
    const alone = matched(looked, seen, frame);
    for (const sighting of alone) {
      if (sighting.confidence >= BEGINS[sighting.kind])
        growing.push(new Growing(familyOf(sighting.kind), sighting, frame, rate));
    }
    const gone = (track: Growing) => frame - track.lastSeen > HOLD * rate;
    ended.push(...growing.filter(gone));
    growing = growing.filter((track) => !gone(track));
  }
  return joined(
    [...ended, ...growing].flatMap((track) => track.finish() ?? []),
    rate,
  );
}

/** Gives sightings to subjects, the sure ones first; returns those that belong to none. */
function matched(growing: readonly Growing[], seen: readonly Sighting[], frame: number): Sighting[] {
  const sure = seen.filter(({ kind, confidence }) => confidence >= BEGINS[kind]);
  const weak = seen.filter(({ kind, confidence }) => confidence < BEGINS[kind]);
  const alone: Sighting[] = [];
  let waiting = [...growing];
  for (const sightings of [sure, weak]) {
    const cost = waiting.map((track) => sightings.map((sighting) => track.costOf(sighting, frame)));
    const columns = assigned(cost);
    const taken = new Set(columns);
    waiting.forEach((track, i) => {
      const sighting = sightings[columns[i] as number];
      if (sighting) track.goOn(sighting, frame);
    });
    waiting = waiting.filter((_, i) => (columns[i] as number) < 0);
    alone.push(...sightings.filter((_, i) => !taken.has(i)));
  }
  for (const track of waiting) track.goOn(null, frame);
  return alone;
}

/** Sightings without those that say the same of one place less surely. */
function distinct(seen: readonly Sighting[]): Sighting[] {
  const kept: Sighting[] = [];
  for (const sighting of [...seen].sort((a, b) => b.confidence - a.confidence)) {
    const twice = kept.some(
      (other) =>
        familyOf(other.kind) === familyOf(sighting.kind) && overlap(other.box, sighting.box) > SAME_PLACE,
    );
    if (!twice) kept.push(sighting);
  }
  return kept;
}
