import { keyframeAt } from '../../framing/framing';
import { placeIn } from '../../layout/overlap';
import { DEVICES, type Device, type Zone } from '../../outlets/placement';
import { distinctFrames, plannedFrame, type PlanPane, segmentAt } from '../../render/plan';
import { counted, exportRule, outcome } from '../rule';

const DEVICE_NAMES: Record<Device, string> = { phone: 'phones', tablet: 'tablets', desk: 'desks' };

interface Covered {
  zone: string;
  device: string;
  shots: number;
}
interface Clear {
  zones: number;
}

/** Nothing that a framing keeps in view lies under what the outlet itself puts on the picture. */
export const zonesRule = exportRule({
  name: 'Overlay zones',
  outlet: true,
  outcomes: {
    none: outcome<object>(
      (_, { label }) => `${label} puts nothing on the picture.`,
      () => 'no zones',
    ),
    clear: outcome<Clear>(
      ({ zones }) => `What the framings keep in view is clear of ${counted(zones, 'overlay zone')}.`,
      ({ zones }) => counted(zones, 'zone'),
    ),
    covered: outcome<Covered>(
      ({ zone, device, shots }, { label }) =>
        `On ${device}, ${label} puts "${zone}" over the subject in ${counted(shots, 'shot')}. Move its seat.`,
      ({ zone, shots }) => `${zone}, ${counted(shots, 'shot')}`,
    ),
  },
  check({ canvas, plan, target }) {
    const { zones } = target.placement;
    const all = DEVICES.flatMap((device) => zones[device].map((zone) => ({ device, zone })));
    if (all.length === 0) return { severity: 'pass', code: 'none', values: {} };
    const covered = new Map<(typeof all)[number], { frame: number; shots: Set<string> }>();
    for (const { frame } of distinctFrames(plan)) {
      const segment = segmentAt(plan, frame);
      const { panes, masterFrame, liveSize } = plannedFrame(plan, frame);
      panes.forEach((pane, i) => {
        const { framing } = segment.panes[i] as PlanPane;
        // A framing that nobody touched keeps nothing in view.
        if (!framing || !isPlaced(framing)) return;
        const { focus } = keyframeAt(framing.keyframes, masterFrame);
        const seen = placeIn(pane.framed, focus, liveSize.width / liveSize.height);
        const { picture } = pane;
        const place = {
          x: (picture.x + seen.x * picture.width) / canvas.width,
          y: (picture.y + seen.y * picture.height) / canvas.height,
        };
        for (const one of all) {
          if (!holds(one.zone, place)) continue;
          const known = covered.get(one) ?? { frame, shots: new Set() };
          known.shots.add(segment.shot);
          covered.set(one, known);
        }
      });
    }
    const [worst] = [...covered].sort(([, a], [, b]) => b.shots.size - a.shots.size);
    if (!worst) return { severity: 'pass', code: 'clear', values: { zones: all.length } };
    const [{ device, zone }, { frame, shots }] = worst;
    const values = { zone: zone.name, device: DEVICE_NAMES[device], shots: shots.size };
    return { severity: 'warn', code: 'covered', values, frame };
  },
});

const isPlaced = ({ keyframes }: NonNullable<PlanPane['framing']>): boolean =>
  keyframes.length > 1 || keyframes.some(({ focus }) => focus.x !== 0.5 || focus.y !== 0.5);

const holds = ({ x, y, width, height }: Zone, place: { x: number; y: number }): boolean =>
  place.x >= x && place.x <= x + width && place.y >= y && place.y <= y + height;
