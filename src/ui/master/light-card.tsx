import { useMemo } from 'react';
import { Image, StyleSheet, View } from 'react-native';
import { colourSystem } from '@core/master/colour-system';
import type { Source } from '@core/master/source';
import { useStills } from '@state/picture';
import { useSource } from '../job/job-context';
import { Body, Heading, Soft } from '../parts/words';
import { card, colours, space } from '../theme/tokens';

const ROWS = 90;
/** Where a look is taken, as shares of the master: in its middle, and near both ends. */
const LOOKS = [0.5, 0.15, 0.85];
/** The colour of a clip: a source in it is drawn as it is decoded. */
const CLIP = { primaries: 'bt709', transfer: 'bt709' };

/** Card of a master in high dynamic range or in wide colours: before and after, beside each other. */
export function LightCard() {
  const source = useSource();
  const system = colourSystem(source);
  const plain = useMemo(() => ({ ...source, colour: { ...source.colour, ...CLIP } }), [source]);
  const frames = useMemo(() => LOOKS.map((share) => Math.floor(source.frames * share)), [source.frames]);
  if (!system) return null;
  return (
    <View style={styles.card}>
      <Heading>{system.kind === 'hdr' ? 'Light' : 'Colour'}</Heading>
      <Body>
        {`This master is in ${system.name}; clips are in BT.709. Look at the brightest and the most colourful places.`}
      </Body>
      <View style={styles.pair}>
        <Column source={plain} frames={frames} words="The master, as this browser draws it" />
        <Column source={source} frames={frames} words="The clip" />
      </View>
    </View>
  );
}

function Column({ source, frames, words }: { source: Source; frames: number[]; words: string }) {
  const stills = useStills(source, frames, ROWS);
  const { width, height } = source.picture;
  return (
    <View style={styles.column}>
      <Soft>{words}</Soft>
      <View style={styles.looks}>
        {frames.map((frame) => (
          <View key={frame} style={[styles.box, { aspectRatio: width / height }]}>
            {stills[frame] !== undefined && (
              <Image source={{ uri: stills[frame] }} aria-label={words} style={styles.still} />
            )}
          </View>
        ))}
      </View>
    </View>
  );
}

const styles = StyleSheet.create({
  card: { gap: space.s, padding: space.m, ...card },
  pair: { flexDirection: 'row', gap: space.m },
  // The words of the one may take more lines: the pictures stay beside each other.
  column: { flex: 1, gap: space.xs, justifyContent: 'space-between' },
  looks: { gap: space.s },
  box: { width: '100%', backgroundColor: colours.hairline },
  still: { width: '100%', height: '100%' },
});
