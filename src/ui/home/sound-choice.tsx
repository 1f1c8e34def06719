import { StyleSheet, View } from 'react-native';
import { Button } from 'react-native-paper';
import { channelWords, codecName } from '@core/master/master';
import { useBringIn } from '@state/files';
import { Body } from '../parts/words';
import { card, space } from '../theme/tokens';

/** Choice for a file whose sound cannot be decoded here: another of its tracks, or silence. */
export function SoundChoice({ onJob }: { onJob: (coming: Promise<string | null>) => void }) {
  const trouble = useBringIn((state) => state.trouble);
  const again = useBringIn((state) => state.again);
  if (trouble?.code !== 'sound-missing' || !again) return null;
  return (
    <View style={styles.box}>
      <Body>Bring it in with another sound:</Body>
      {trouble.values.others.map(({ track, codec, channels }) => (
        <Button key={track} mode="outlined" onPress={() => onJob(again(track))}>
          {`Track ${track + 1}: ${codecName(codec)}, ${channelWords(channels)}`}
        </Button>
      ))}
      <Button mode="outlined" onPress={() => onJob(again(null))}>
        Continue without sound
      </Button>
    </View>
  );
}

const styles = StyleSheet.create({ box: { gap: space.s, padding: space.m, ...card } });
