import { rateValue } from '@core/time/frame-rate';
import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { Button } from 'react-native-paper';
import { tapCue } from '@core/words/cue-edits';
import { toOutputFrame } from '@core/words/spans';
import { type Speed, usePlayer } from '@state/player';
import { Choice } from '../parts/choice';
import { useKeys } from '../parts/use-keys';
import { Body, Soft } from '../parts/words';
import { space } from '../theme/tokens';
import type { CaptionTools } from './use-captions';
import { useClipTime } from './use-clip-time';

const SPEEDS = [
  { value: 'full', label: 'Full speed' },
  { value: 'half', label: 'Half speed' },
] as const;

/** Captions timed by ear: the clip plays, and a tap begins the next line. */
export function TapAlong({ captions }: { captions: CaptionTools }) {
  const [speed, setSpeed] = useState<'full' | 'half'>('half');
  const [next, setNext] = useState<number | null>(null);
  const time = useClipTime();
  const playing = usePlayer((state) => state.playing);
  const { listed, timeline } = captions;
  const line = next === null ? null : (listed[next]?.cue.text ?? null);
  const start = (index: number) => {
    const at = listed[index]?.at;
    setNext(index);
    const pace: Speed = speed === 'half' ? 0.5 : 1;
    // A little before the line, so that its start is not missed.
    const lead = Math.round(1.5 * rateValue(timeline.rate));
    time.playFrom(Math.max(0, (at?.from ?? 0) - lead), pace);
  };
  const tap = () => {
    if (next === null) return;
    const { master, shown, frame } = usePlayer.getState();
    const output = toOutputFrame({ master, frame: shown ?? frame }, timeline);
    if (output === null) return;
    captions.setCues('tap', tapCue(captions.captions.cues, listed, next, output, timeline));
    captions.choose(listed[next]?.cue.id ?? null);
    setNext(next + 1 < listed.length ? next + 1 : null);
  };
  useKeys({ t: tap });
  const chosen = Math.max(
    0,
    listed.findIndex(({ cue }) => cue.id === captions.chosen),
  );
  if (listed.length === 0) return <Soft>Bring captions in first, or make them from a script.</Soft>;
  return (
    <View style={styles.panel}>
      <Soft>Play, and tap where each line begins (T on a keyboard).</Soft>
      <Choice label="Speed" value={speed} options={SPEEDS} onChange={setSpeed} />
      {next === null || !playing ? (
        <View style={styles.row}>
          <Button mode="outlined" icon="play" onPress={() => start(0)}>
            From the first line
          </Button>
          <Button mode="outlined" icon="play" onPress={() => start(chosen)}>
            From this line
          </Button>
        </View>
      ) : (
        <>
          <Body numberOfLines={2}>{line ?? ''}</Body>
          <Button mode="contained" contentStyle={styles.tap} onPress={tap}>
            {`Line ${next + 1} begins`}
          </Button>
        </>
      )}
    </View>
  );
}

const styles = StyleSheet.create({
  panel: { gap: space.s },
  row: { flexDirection: 'row', gap: space.s, flexWrap: 'wrap' },
  tap: { minHeight: 64 },
});
