import { useMemo, useState } from 'react';
import { type LayoutChangeEvent, StyleSheet, View } from 'react-native';
import { Button } from 'react-native-paper';
import { cutSpan, withIn, withOut } from '@core/cut/cut';
import { formatTimecode, parseTimecode } from '@core/time/timecode';
import { dispatch } from '@state/jobs';
import { showFrame, usePlayer } from '@state/player';
import { JobPage } from '../job/job-page';
import { useFindings, useJob } from '../job/job-context';
import { useTarget } from '../job/use-target';
import { NumberField } from '../parts/number-field';
import { PictureView } from '../parts/picture-view';
import { Transport } from '../parts/transport';
import { useKeys } from '../parts/use-keys';
import { colours, space } from '../theme/tokens';
import { Filmstrip } from './filmstrip';
import { LengthRuler } from './length-ruler';

/** In and out points, to the exact frame. */
export function CutScreen() {
  const job = useJob();
  const { placement, label } = useTarget();
  const { master, id } = job;
  const frame = usePlayer((state) => state.frame);
  const [draft, setDraft] = useState<{ edge: 'in' | 'out'; frame: number } | null>(null);
  const cut = draft
    ? draft.edge === 'in'
      ? withIn(job.edit.cut, draft.frame)
      : withOut(job.edit.cut, draft.frame, master.frames)
    : job.edit.cut;
  const range = cutSpan(cut);
  const setEdge = (edge: 'in' | 'out', at: number, joins?: string) =>
    dispatch(id, edge === 'in' ? { type: 'set-in', frame: at } : { type: 'set-out', lastFrame: at }, joins);
  const drag = (edge: 'in' | 'out', at: number, done: boolean) => {
    showFrame(at);
    if (done) setEdge(edge, at);
    setDraft(done ? null : { edge, frame: at });
  };
  const step = (edge: 'in' | 'out', at: number) => {
    showFrame(at);
    setEdge(edge, at, `trim-${edge}`);
  };
  const keys = useMemo(
    () => ({
      a: () => dispatch(id, { type: 'set-in', frame: usePlayer.getState().frame }),
      b: () => dispatch(id, { type: 'set-out', lastFrame: usePlayer.getState().frame }),
      ArrowLeft: () => showFrame(usePlayer.getState().frame - 1),
      ArrowRight: () => showFrame(usePlayer.getState().frame + 1),
    }),
    [id],
  );
  useKeys(keys);
  const type = (edge: 'in' | 'out') => (text: string) => {
    const at = parseTimecode(text, master.rate);
    if (at === null || at >= master.frames) return false;
    setEdge(edge, at);
    showFrame(at);
    return true;
  };
  const overlong = useFindings().find((one) => one.rule === 'length')?.fix;
  return (
    <JobPage
      title="Length"
      subtitle={`For ${label}`}
      tray={
        <>
          <View style={styles.row}>
            <Button mode="contained-tonal" style={styles.grow} onPress={() => setEdge('in', frame)}>
              Start here
            </Button>
            <Button mode="contained-tonal" style={styles.grow} onPress={() => setEdge('out', frame)}>
              End here
            </Button>
          </View>
          {overlong && (
            <Button mode="contained" onPress={() => dispatch(id, overlong.command)}>
              {overlong.label}
            </Button>
          )}
        </>
      }
    >
      <MasterPicture />
      <Transport rate={master.rate} frames={master.frames} />
      <View style={styles.strip}>
        <Filmstrip job={job} range={range} frame={frame} onScrub={showFrame} onDrag={drag} onStep={step} />
        <LengthRuler range={range} masterFrames={master.frames} rate={master.rate} placement={placement} />
      </View>
      <View style={styles.row}>
        <NumberField
          label="First frame kept"
          value={formatTimecode(range.in, master.rate)}
          onSubmit={type('in')}
        />
        <NumberField
          label="Last frame kept"
          value={formatTimecode(range.out - 1, master.rate)}
          onSubmit={type('out')}
        />
      </View>
    </JobPage>
  );
}

/** Most rows of the master, so that a wide screen shows the whole page, in pixels. */
const MASTER_ROWS = 300;

/** The master as wide as the page lets it be. */
function MasterPicture() {
  const { picture } = useJob().master;
  const [room, setRoom] = useState(0);
  const height = Math.min(room * (picture.height / picture.width), MASTER_ROWS);
  return (
    <View
      style={styles.picture}
      onLayout={(event: LayoutChangeEvent) => setRoom(event.nativeEvent.layout.width)}
    >
      {height > 0 && (
        <PictureView
          view="master"
          label="The master"
          width={height * (picture.width / picture.height)}
          height={height}
        />
      )}
    </View>
  );
}

const styles = StyleSheet.create({
  row: { flexDirection: 'row', gap: space.m },
  grow: { flex: 1 },
  strip: { gap: space.s, paddingHorizontal: 14 },
  picture: { alignItems: 'center', backgroundColor: colours.paper },
});
