import { StyleSheet, View } from 'react-native';
import { formatTimecode } from '@core/time/timecode';
import { player, usePlayer } from '@state/player';
import { useSource } from '../job/job-context';
import { space } from '../theme/tokens';
import { Tool } from './tool';
import { Figures, Soft } from './words';

/** Play, step by frame, and where the playhead is. */
export function Transport() {
  const { rate, frames } = useSource();
  const frame = usePlayer((state) => state.frame);
  const playing = usePlayer((state) => state.playing);
  return (
    <View style={styles.row}>
      <Tool
        icon="step-backward"
        label="Back one frame"
        words=""
        hotkey="Q"
        onPress={() => player.stepFrames(-1)}
      />
      <Tool
        icon={playing ? 'pause' : 'play'}
        label={playing ? 'Pause' : 'Play'}
        words=""
        hotkey="Space"
        onPress={() => player.togglePlay()}
      />
      <Tool
        icon="step-forward"
        label="Forward one frame"
        words=""
        hotkey="W"
        onPress={() => player.stepFrames(1)}
      />
      <View style={styles.time}>
        <Figures aria-label="Playhead">{formatTimecode(frame, rate)}</Figures>
        <Soft>
          frame {frame} of {frames}
        </Soft>
      </View>
    </View>
  );
}

const styles = StyleSheet.create({
  row: { flexDirection: 'row', alignItems: 'center', gap: space.xs },
  time: { flex: 1, alignItems: 'flex-end' },
});
