import { StyleSheet, View } from 'react-native';
import { Button } from 'react-native-paper';
import { lookSignature, type ShotState } from '@core/check/shot-states';
import { listKeptShots, lookThrough } from '@core/cut/look-through';
import { findSource, listSources } from '@core/job/job';
import { listShots } from '@core/cut/master-shots';
import { rateValue } from '@core/time/frame-rate';
import { dispatch } from '@state/job';
import { player, usePlayer } from '@state/player';
import { useClip, useJob } from '../job/job-context';
import { Soft } from '../parts/words';
import { SeeWhole } from '../whole/see-whole';
import { space } from '../theme/tokens';

/** Plays a second of each shot's start, middle and end on every canvas; the person ticks what is right. */
export function LookBar({ state, states }: { state: ShotState | undefined; states: readonly ShotState[] }) {
  const job = useJob();
  const { cut } = useClip();
  const playing = usePlayer((playerState) => playerState.playing);
  const play = () => {
    const shots = listSources(job).flatMap((source) => listShots(job.edit.shots, source));
    const second = (master: string) => Math.round(rateValue(findSource(job, master).rate));
    player.playPieces(lookThrough(listKeptShots(cut, shots), second));
  };
  const ticked = states.filter((shotState) => shotState.ticked).length;
  const tick = () => {
    if (!state) return;
    const signature = state.ticked ? null : lookSignature(job, state.shot);
    dispatch(job.id, { type: 'tick-shot', shot: state.shot.id, signature });
  };
  return (
    <View style={styles.row}>
      <Button
        mode="outlined"
        icon="play-box-multiple-outline"
        onPress={playing ? () => player.togglePlay() : play}
      >
        {playing ? 'Stop to fix' : 'Review the shots'}
      </Button>
      <Button
        mode={state?.ticked ? 'contained-tonal' : 'outlined'}
        icon="check"
        disabled={!state}
        onPress={tick}
      >
        {state?.ticked ? 'Ticked' : 'Tick this shot'}
      </Button>
      <SeeWhole from="frame" />
      <Soft aria-label="Ticks">{`${ticked} of ${states.length}`}</Soft>
    </View>
  );
}

const styles = StyleSheet.create({
  row: { flexDirection: 'row', alignItems: 'center', gap: space.s, flexWrap: 'wrap' },
});
