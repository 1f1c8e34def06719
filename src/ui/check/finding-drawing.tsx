import { StyleSheet, View } from 'react-native';
import Svg, { Line, Rect } from 'react-native-svg';
import type { Finding } from '@core/check/finding';
import { planOfJob } from '@core/check/check';
import { DEVICES } from '@core/outlets/placement';
import { plannedFrame } from '@core/render/plan';
import { useClip, useJob } from '../job/job-context';
import { useRuleSheets, useTarget } from '../job/use-target';
import { ZoneDrawing } from '../rules/zone-drawing';
import { colours } from '../theme/tokens';

/** Rows of a drawn canvas, and the columns of a ruler, in pixels. */
const ROWS = 120;
const RULER = 240;

/** Drawing of a finding: the clip against its limit, the bare strip of the frame, or what the outlet covers. */
export function FindingDrawing({ finding }: { finding: Finding }) {
  if (finding.severity === 'pass') return null;
  if (finding.rule === 'length' && 'limit' in finding.values)
    return <Ruler seconds={finding.values.seconds} limit={finding.values.limit} />;
  if (finding.rule === 'coverage') return <Bare frame={finding.frame ?? 0} />;
  return finding.rule === 'zones' && finding.code === 'covered' ? <Covered /> : null;
}

function Ruler({ seconds, limit }: { seconds: number; limit: number }) {
  const scale = RULER / (Math.max(seconds, limit) * 1.05);
  const over = seconds > limit;
  return (
    <Svg width={RULER} height={20} aria-hidden>
      <Rect x={0} y={6} width={Math.min(seconds, limit) * scale} height={8} fill={colours.woad} />
      {over && (
        <Rect x={limit * scale} y={6} width={(seconds - limit) * scale} height={8} fill={colours.madder} />
      )}
      <Line x1={limit * scale} x2={limit * scale} y1={0} y2={20} stroke={colours.ink} strokeWidth={2} />
    </Svg>
  );
}

/** The canvas, with what is no picture outlined. */
function Bare({ frame }: { frame: number }) {
  const job = useJob();
  const plan = planOfJob(job, useRuleSheets());
  const scale = ROWS / plan.height;
  const { panes } = plannedFrame(plan, Math.min(frame, plan.frames - 1));
  return (
    <View style={[styles.canvas, { width: plan.width * scale + 2 }]}>
      <Svg width={plan.width * scale} height={ROWS} aria-hidden>
        <Rect
          x={1}
          y={1}
          width={plan.width * scale - 2}
          height={ROWS - 2}
          fill={colours.madderWash}
          stroke={colours.madder}
          strokeWidth={2}
        />
        {panes.map(({ picture }, i) => (
          <Rect
            key={i}
            x={picture.x * scale}
            y={picture.y * scale}
            width={picture.width * scale}
            height={picture.height * scale}
            fill={colours.woadWash}
            stroke={colours.woad}
          />
        ))}
      </Svg>
    </View>
  );
}

/** The canvas with the outlet's own controls over it, on the first device that has any. */
function Covered() {
  const { canvases, canvas: id } = useClip();
  const { zones } = useTarget().placement;
  const canvas = canvases.find((canvas) => canvas.id === id);
  const device = DEVICES.find((device) => zones[device].length > 0);
  if (!canvas || !device) return null;
  const width = (ROWS * canvas.width) / canvas.height;
  return (
    <View style={[styles.canvas, { width: width + 2 }]}>
      <ZoneDrawing width={width} height={ROWS} zones={zones[device]} />
    </View>
  );
}

const styles = StyleSheet.create({
  canvas: {
    borderWidth: 1,
    borderColor: colours.ink,
    alignSelf: 'flex-start',
    backgroundColor: colours.sheet,
  },
});
