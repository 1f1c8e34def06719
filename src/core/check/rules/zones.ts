import { formatCount } from '../../figures/figures';
import { memoize } from '../../figures/memoize';
import { findSubjectPoint } from '../../framing/framing';
import { toWindowPoint } from '../../layout/overlap';
import { DEVICES, type Device, type Placement, type Zone } from '../../outlets/placement';
import { computeWindow } from '../../framing/window';
import { ACTION_SAFE } from '../../picture/safe-areas';
import type { Size } from '../../picture/size';
import { memoizePane } from '../../render/memoize-pane';
import { computeMasterFrame, type PlanPane, type PlanSegment, type RenderPlan } from '../../render/plan';
import { exportRule, outcome } from '../rule';

const DEVICE_NAMES: Record<Device, string> = { phone: 'phones', tablet: 'tablets', desk: 'desks' };

interface CoveredValues {
  zone: string;
  device: string;
  shots: number;
}
interface ClearValues {
  zones: number;
}

/** Nothing that a framing keeps in view lies under what the outlet itself puts on the picture. */
export const zonesRule = exportRule({
  name: 'Overlay zones',
  reads: ['canvas', 'plan', 'target'],
  outlet: true,
  outcomes: {
    none: outcome<object>(
      (_, { label }) => `${label} puts nothing on the picture.`,
      () => 'no zones',
    ),
    clear: outcome<ClearValues>(
      ({ zones }) => `What the framings keep in view is clear of ${formatCount(zones, 'overlay zone')}.`,
      ({ zones }) => formatCount(zones, 'zone'),
    ),
    edge: outcome<{ shots: number }>(
      ({ shots }) =>
        `The subject lies outside the action-safe area of EBU R 95 in ${formatCount(shots, 'shot')}: within 3.5 % of the ` +
        'edge, which some screens cut off.',
      ({ shots }) => `${formatCount(shots, 'shot')} outside the safe area`,
    ),
    covered: outcome<CoveredValues>(
      ({ zone, device, shots }, { label }) =>
        `On ${device}, ${label} puts "${zone}" over the subject in ${formatCount(shots, 'shot')}. Move its seat.`,
      ({ zone, shots }) => `${zone}, ${formatCount(shots, 'shot')}`,
    ),
  },
  check({ canvas, plan, target }) {
    const { zones } = target.placement;
    const all = listZones(zones);
    if (all.length === 0) return { severity: 'pass', code: 'none', values: {} };
    const covered = new Map<(typeof all)[number], { frame: number; shots: Set<string> }>();
    for (const segment of plan.segments) {
      for (const [place, offset] of coveredIn(plan, segment, zones, canvas)) {
        const one = all[place] as (typeof all)[number];
        const known = covered.get(one) ?? { frame: segment.start + offset, shots: new Set() };
        known.shots.add(segment.shot);
        covered.set(one, known);
      }
    }
    const [worst] = [...covered].sort(([, a], [, b]) => b.shots.size - a.shots.size);
    if (!worst) {
      const edges = plan.segments.filter(
        (segment) => coveredIn(plan, segment, OUTSIDE_SAFE, canvas).length > 0,
      );
      const [edge] = edges;
      if (!edge) return { severity: 'pass', code: 'clear', values: { zones: all.length } };
      const values = { shots: new Set(edges.map(({ shot }) => shot)).size };
      return { severity: 'note', code: 'edge', values, frame: edge.start };
    }
    const [{ device, zone }, { frame, shots }] = worst;
    const values = { zone: zone.name, device: DEVICE_NAMES[device], shots: shots.size };
    return { severity: 'warn', code: 'covered', values, frame };
  },
});

/** Where what a framing keeps in view is seen: pixels of the canvas, so many output frames after the segment's first. */
interface SeenPlace {
  offset: number;
  x: number;
  y: number;
}

type Zones = Placement['zones'];
/** Zones that cover a place, by their index in the list of all, each with output frames until then. */
type ZoneCover = [place: number, offset: number][];

const listZones = (zones: Zones) =>
  DEVICES.flatMap((device) => zones[device].map((zone) => ({ device, zone })));

/** Makes a zone of the area outside action safe. */
const edge = (x: number, y: number, width: number, height: number): Zone => ({
  name: 'Edge',
  x,
  y,
  width,
  height,
});
const OUTSIDE_SAFE: Zones = {
  phone: [
    edge(0, 0, 1, ACTION_SAFE.y),
    edge(0, ACTION_SAFE.y + ACTION_SAFE.height, 1, ACTION_SAFE.y),
    edge(0, 0, ACTION_SAFE.x, 1),
    edge(ACTION_SAFE.x + ACTION_SAFE.width, 0, ACTION_SAFE.x, 1),
  ],
  tablet: [],
  desk: [],
};

const placesOfPane = memoizePane(listPlaces);
/** A segment is of one plan, and so of one canvas. */
const coveredIn = memoize(covering, (_, segment, zones) => [segment, zones]);

function covering(plan: RenderPlan, segment: PlanSegment, zones: Zones, { width, height }: Size): ZoneCover {
  const seen = segment.panes.flatMap((pane) => placesOfPane(plan, segment, pane));
  return listZones(zones).flatMap(({ zone }, place): ZoneCover => {
    const first = seen.find(({ x, y }) => holds(zone, { x: x / width, y: y / height }));
    return first ? [[place, first.offset]] : [];
  });
}

function listPlaces(plan: RenderPlan, segment: PlanSegment, { framing, picture }: PlanPane): SeenPlace[] {
  // A framing that nobody touched keeps nothing in view.
  if (!framing || !isPlaced(framing)) return [];
  const live = segment.liveSize.width / segment.liveSize.height;
  const aspects = { pane: picture.width / picture.height, live };
  const moves = framing.keyframes.length > 1 || (framing.subject?.length ?? 0) > 1;
  const count = moves ? segment.frames : 1;
  return Array.from({ length: count }, (_, offset) => {
    const frame = computeMasterFrame(plan, segment, segment.start + offset);
    const seen = toWindowPoint(
      computeWindow(framing, frame, aspects),
      findSubjectPoint(framing, frame),
      live,
    );
    return { offset, x: picture.x + seen.x * picture.width, y: picture.y + seen.y * picture.height };
  });
}

const isPlaced = ({ keyframes, subject = [] }: NonNullable<PlanPane['framing']>): boolean =>
  subject.length > 0 ||
  keyframes.length > 1 ||
  keyframes.some(({ focus }) => focus.x !== 0.5 || focus.y !== 0.5);

const holds = ({ x, y, width, height }: Zone, place: { x: number; y: number }): boolean =>
  place.x >= x && place.x <= x + width && place.y >= y && place.y <= y + height;
