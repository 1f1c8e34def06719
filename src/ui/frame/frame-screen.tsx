import { useMemo, useState } from 'react';
import { type LayoutChangeEvent, StyleSheet, useWindowDimensions, View } from 'react-native';
import { activeCanvas } from '@core/job/clip';
import { shotsOf } from '@core/job/job';
import { dispatch } from '@state/jobs';
import { JobPage } from '../job/job-page';
import { useClip, useJob, useSource } from '../job/job-context';
import { useTarget } from '../job/use-target';
import { Choice } from '../parts/choice';
import { Tool } from '../parts/tool';
import { Transport } from '../parts/transport';
import { useKeys } from '../parts/use-keys';
import { space, WIDE } from '../theme/tokens';
import { CanvasPicture } from './canvas-picture';
import { FramingNumbers, MarginFacts } from './framing-numbers';
import { MasterBench } from './master-bench';
import { ShotStrip } from './shot-strip';
import { type FramingTools, useFraming } from './use-framing';

/** Most rows that the canvas picture takes, in pixels, on a phone and on a wide screen. */
const CANVAS_ROWS = { phone: 236, wide: 300 };
const MASTER_ROWS = 340;
const MODES = [
  { value: 'fill', label: 'Fill the canvas' },
  { value: 'fit', label: 'Fit, with bars' },
] as const;

/** Where the window lies: the master with the window, and the canvas as it will be, playing in step. */
export function FrameScreen() {
  const job = useJob();
  const tools = useFraming();
  const { label } = useTarget();
  const source = useSource();
  const canvas = activeCanvas(useClip());
  const mode = tools.fills ? 'fill' : 'fit';
  useFrameKeys(tools);
  return (
    <JobPage
      title="Framing"
      subtitle={`Shot ${tools.number} of ${shotsOf(job.edit, source).length}, ${label}`}
      tray={
        <>
          <FramingNumbers tools={tools} />
          <View style={styles.row}>
            <View style={styles.grow}>
              <Choice
                label="Fill or fit"
                value={mode}
                options={MODES}
                onChange={(value) => dispatch(job.id, { type: 'set-pane-mode', mode: value })}
              />
            </View>
            <Tool
              icon="image-filter-center-focus"
              label="Reset this shot"
              words="Reset"
              onPress={() => dispatch(job.id, { type: 'reset-framing', shot: tools.shot.id })}
            />
          </View>
        </>
      }
    >
      <Pictures tools={tools} aspect={canvas.width / canvas.height} />
      <Transport />
      <ShotStrip current={tools.shot.id} />
    </JobPage>
  );
}

/** Both pictures, as large as the page lets them be. */
function Pictures({ tools, aspect }: { tools: FramingTools; aspect: number }) {
  const { picture } = useSource();
  const [room, setRoom] = useState(0);
  const wide = useWindowDimensions().width >= WIDE;
  const live = picture.width / picture.height;
  const height = wide ? Math.min(MASTER_ROWS, (room * 0.62) / live) : Math.min(MASTER_ROWS, room / live);
  const rows = wide ? CANVAS_ROWS.wide : CANVAS_ROWS.phone;
  const across = Math.min(rows * aspect, wide ? room * 0.3 : room * 0.55);
  return (
    <View
      style={[styles.pictures, wide && styles.side]}
      onLayout={(event: LayoutChangeEvent) => setRoom(event.nativeEvent.layout.width)}
    >
      {room > 0 && (
        <>
          <MasterBench tools={tools} width={height * live} height={height} />
          <View style={styles.canvas}>
            <CanvasPicture tools={tools} width={across} height={across / aspect} />
            <MarginFacts tools={tools} />
          </View>
        </>
      )}
    </View>
  );
}

/** Arrows move the window by a master pixel, with Shift by ten; + and − zoom about its middle. */
function useFrameKeys(tools: FramingTools): void {
  const { picture } = useSource();
  const { nudge, nudgeZoom, window } = tools;
  const keys = useMemo(() => {
    const by = (x: number, y: number) => () => nudge({ x: x / picture.width, y: y / picture.height });
    const middle = { x: window.x + window.width / 2, y: window.y + window.height / 2 };
    return {
      ArrowLeft: by(-1, 0),
      ArrowRight: by(1, 0),
      ArrowUp: by(0, -1),
      ArrowDown: by(0, 1),
      'Shift+ArrowLeft': by(-10, 0),
      'Shift+ArrowRight': by(10, 0),
      'Shift+ArrowUp': by(0, -10),
      'Shift+ArrowDown': by(0, 10),
      '+': () => nudgeZoom(1.05, middle),
      'Shift++': () => nudgeZoom(1.05, middle),
      '-': () => nudgeZoom(1 / 1.05, middle),
    };
  }, [nudge, nudgeZoom, window, picture]);
  useKeys(keys);
}

const styles = StyleSheet.create({
  row: { flexDirection: 'row', gap: space.m, alignItems: 'center' },
  grow: { flex: 1 },
  pictures: { gap: space.m },
  side: { flexDirection: 'row', alignItems: 'flex-start' },
  canvas: { flexDirection: 'row', gap: space.m, flexShrink: 1 },
});
