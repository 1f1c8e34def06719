import { StyleSheet, View } from 'react-native';
import { player, type Quality, usePlayer } from '@state/player';
import { Choice } from '../parts/choice';
import { Heading, Soft } from '../parts/words';
import { space } from '../theme/tokens';

const OPTIONS: readonly { value: Quality | 'auto'; label: string }[] = [
  { value: 'auto', label: 'Automatic' },
  { value: 'full', label: 'Full' },
  { value: 'half', label: 'Half' },
  { value: 'quarter', label: 'Quarter' },
];
const WORDS: Record<Quality, string> = {
  full: 'the master itself',
  half: 'its proxy',
  quarter: 'every other frame of its proxy',
};

/** How finely the preview plays; the export always reads the master. */
export function QualityChoice() {
  const wish = usePlayer((state) => state.wish);
  const quality = usePlayer((state) => state.quality);
  return (
    <View style={styles.box}>
      <Heading>Playing</Heading>
      <Choice
        label="Preview quality"
        value={wish}
        options={OPTIONS}
        onChange={(wish) => player.setQuality(wish)}
      />
      <Soft>{`Plays ${WORDS[quality]}. The export always reads the master.`}</Soft>
    </View>
  );
}

const styles = StyleSheet.create({ box: { gap: space.s } });
