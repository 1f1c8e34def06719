import { assignRows } from './assignment';
import type { Sample, Sighting, SubjectKind, Track } from './evidence';
import { toKindFamily, GrowingTrack, PIECE_SHARE } from './growing-track';
import { joinTracks, joinPieces } from './join-tracks';
import { computeCoveredShare, computeOverlap } from './track';

/** A subject that is not seen for this long, in seconds, is gone. */
const HOLD = 1.6;
/** Two sightings of the same place are one: the surer one. */
const SAME_PLACE = 0.6;

/** How sure a sighting has to be to begin a track; what is less sure may still go on with one. */
const BEGINS: Record<SubjectKind, number> = {
  ...{ face: 0.6, person: 0.35, animal: 0.35, vehicle: 0.35, thing: 0.3, motion: 0.3, drawn: 0 },
};

/** How far off a sighting may be: squared distance in standard deviations, with what else tells the two apart. */
const GATE = 16;
/** A sighting that is within another by this share of its area is a part of that, and costs more to be taken. */
const WITHIN = 0.7;
const PIECE_PRICE = 6;

/**
 * The subjects of one shot: sightings joined over time, each sample's by the cheapest assignment to where a filter of
 * even motion expects the subjects. One that hides is held for a while; a cut ends all, so samples are of one shot.
 *
 * @param rate the frames that samples count in, a second.
 */
export function buildTracks(samples: readonly Sample[], rate: number): Track[] {
  const ended: GrowingTrack[] = [];
  let growing: GrowingTrack[] = [];
  for (const sample of samples) {
    const { frame } = sample;
    const seen = distinct(sample.seen);
    // Where detectors did not look, nothing can be said of what only they see.
    const looked = growing.filter(({ family }) => sample.detected || family === 'motion');
    const alone = matchSightings(looked, seen, frame);
    for (const sighting of alone) {
      if (looked.some((track) => track.holds(sighting, frame))) continue;
      if (sighting.confidence >= BEGINS[sighting.kind])
        growing.push(new GrowingTrack(toKindFamily(sighting.kind), sighting, frame, rate));
    }
    const isGone = (track: GrowingTrack) => frame - track.lastSeen > HOLD * rate;
    ended.push(...growing.filter(isGone));
    growing = growing.filter((track) => !isGone(track));
  }
  const tracks = [...ended, ...growing].flatMap((track) => track.finish() ?? []);
  return joinPieces(joinTracks(tracks, rate));
}

/** Gives sightings to subjects, the sure ones first; returns those that belong to none. */
function matchSightings(
  growing: readonly GrowingTrack[],
  seen: readonly Sighting[],
  frame: number,
): Sighting[] {
  const sure = seen.filter(({ kind, confidence }) => confidence >= BEGINS[kind]);
  const weak = seen.filter(({ kind, confidence }) => confidence < BEGINS[kind]);
  const alone: Sighting[] = [];
  const given: Sighting[] = [];
  let waiting = [...growing];
  for (const sightings of [sure, weak]) {
    const more = sightings.map((sighting) =>
      given.some((other) => isPart(sighting, other)) ? PIECE_PRICE : 0,
    );
    const cost = waiting.map((track) =>
      sightings.map((sighting, i) => {
        const price = track.computeCost(sighting, frame) + (more[i] as number);
        return price < GATE ? price : Infinity;
      }),
    );
    const columns = assignRows(cost);
    const taken = new Set(columns);
    waiting.forEach((track, i) => {
      const sighting = sightings[columns[i] as number];
      if (!sighting) return;
      track.goOn(sighting, frame);
      given.push(sighting);
    });
    waiting = waiting.filter((_, i) => (columns[i] as number) < 0);
    alone.push(...sightings.filter((_, i) => !taken.has(i)));
  }
  for (const track of waiting) track.goOn(null, frame);
  return alone;
}

/** Tells whether a sighting lies within another one and is much smaller: a head, a tail, a leg. */
function isPart({ kind, box }: Sighting, whole: Sighting): boolean {
  if (kind === 'motion' || toKindFamily(kind) !== toKindFamily(whole.kind)) return false;
  const smaller = box.width * box.height < PIECE_SHARE * whole.box.width * whole.box.height;
  return smaller && computeCoveredShare(box, whole.box) > WITHIN;
}

/** Sightings without those that say the same of one place less surely. */
function distinct(seen: readonly Sighting[]): Sighting[] {
  const kept: Sighting[] = [];
  for (const sighting of [...seen].sort((a, b) => b.confidence - a.confidence)) {
    const twice = kept.some(
      (other) =>
        toKindFamily(other.kind) === toKindFamily(sighting.kind) &&
        computeOverlap(other.box, sighting.box) > SAME_PLACE,
    );
    if (!twice) kept.push(sighting);
  }
  return kept;
}
