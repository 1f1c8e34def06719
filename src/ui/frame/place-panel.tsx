import { moveAnchor } from '@core/framing/moves';
import { findKeyframe, type Point } from '@core/framing/framing';
import { listPanes } from '@core/layout/layout';
import { useFramingUi } from '@state/framing';
import { dispatch } from '@state/job';
import { useJob } from '../job/job-context';
import { Tool } from '../parts/tool';
import { ToolRow } from '../parts/tool-row';
import type { FramingTools } from './use-framing';

const THIRD = 1 / 3;
/** Where the focus may sit in the window. Lead room lies ahead of the motion, head room above a face. */
const SEATS = [
  {
    icon: 'image-filter-center-focus',
    label: 'Put the subject in the middle',
    words: 'Middle',
    seat: { x: 0.5, y: 0.5 },
  },
  {
    icon: 'format-horizontal-align-left',
    label: 'Put the subject on the left third',
    words: 'Left third',
    seat: { x: THIRD, y: 0.5 },
  },
  {
    icon: 'format-horizontal-align-right',
    label: 'Put the subject on the right third',
    words: 'Right third',
    seat: { x: 1 - THIRD, y: 0.5 },
  },
  {
    icon: 'format-vertical-align-top',
    label: 'Leave head room',
    words: 'Head room',
    seat: { x: 0.5, y: THIRD },
  },
] as const;

/** Where the focus sits in the window, whose framing it is, and how the page behaves. */
export function PlacePanel({ tools }: { tools: FramingTools }) {
  const job = useJob();
  const snaps = useFramingUi((state) => state.snaps);
  const bare = useFramingUi((state) => state.bare);
  const { framing, canvas, shot, track, owner, scope, frame } = tools;
  const alone = owner !== 'shared';
  const { seat } = findKeyframe(framing.keyframes, frame);
  const sit = (to: Point) => tools.keep('seat', moveAnchor(framing, scope, to));
  const lead = leadSeat(tools);
  return (
    <ToolRow>
      <Tool
        icon={alone ? 'link-variant-off' : 'link-variant'}
        label={alone ? 'Share the framing again' : 'Frame this canvas by itself'}
        words={alone ? 'Share' : 'By itself'}
        pressed={alone}
        onPress={() =>
          dispatch(
            job.id,
            alone
              ? { type: 'attach', canvas: canvas.id, shot: shot.id }
              : { type: 'detach', canvas: canvas.id, shot },
          )
        }
      />
      <Tool
        icon={framing.fit ? 'crop-free' : 'fit-to-page-outline'}
        label={framing.fit ? 'Fill the canvas' : 'Fit, with bars'}
        words={framing.fit ? 'Fill' : 'Fit'}
        pressed={framing.fit}
        disabled={!listPanes(canvas.layout, canvas).some(({ mode }) => mode === 'choice')}
        onPress={() => tools.keep('fit', { ...framing, fit: !framing.fit })}
      />
      {SEATS.map(({ icon, label, words, seat: to }) => (
        <Tool
          key={label}
          icon={icon}
          label={label}
          words={words}
          pressed={seat.x === to.x && seat.y === to.y}
          onPress={() => sit(to)}
        />
      ))}
      <Tool
        icon="arrow-expand-horizontal"
        label="Leave lead room"
        words="Lead"
        disabled={lead === null}
        onPress={() => lead && sit(lead)}
      />
      <Tool
        icon="magnet"
        label="Snap to the middle, thirds and edges"
        words="Snap"
        pressed={snaps}
        onPress={() => useFramingUi.setState({ snaps: !snaps })}
      />
      <Tool
        icon="eye-outline"
        label="Hold to hide the windows"
        words="Hide"
        hotkey="H"
        pressed={bare}
        onHold={(pressed) => useFramingUi.setState({ bare: pressed })}
      />
      <Tool
        icon="backup-restore"
        label="Reset this shot"
        words="Reset"
        onPress={() => dispatch(job.id, { type: 'reset-framing', shot: shot.id, track, owner })}
      />
    </ToolRow>
  );
}

/** The seat that leaves room ahead of where the focus goes; null where it does not move across. */
function leadSeat({ framing }: FramingTools): Point | null {
  const first = framing.keyframes[0];
  const last = framing.keyframes[framing.keyframes.length - 1];
  const way = (last?.focus.x ?? 0) - (first?.focus.x ?? 0);
  if (Math.abs(way) < 0.01) return null;
  return { x: way > 0 ? THIRD : 1 - THIRD, y: 0.5 };
}
