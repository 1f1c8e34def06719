import { useMemo } from 'react';
import { Image, StyleSheet, View } from 'react-native';
import type { Source } from '@core/master/source';
import { type PictureRect, WHOLE_RECT } from '@core/picture/size';
import { useStills } from '@state/picture';
import { Soft } from '../parts/words';
import { colours, space } from '../theme/tokens';

const ROWS = 76;

/** A frame of a master as it is, and as it is without its edges. */
export function EdgesPicture({ source, live }: { source: Source; live: PictureRect }) {
  const frames = useMemo(() => [Math.floor(source.frames / 2)], [source.frames]);
  const still = useStills(source, frames, ROWS)[frames[0] ?? 0];
  return (
    <View style={styles.pair}>
      <Cropped words="With the edges" still={still} source={source} live={WHOLE_RECT} />
      <Cropped words="Without" still={still} source={source} live={live} />
    </View>
  );
}

interface CroppedProps {
  words: string;
  still: string | undefined;
  source: Source;
  live: PictureRect;
}

function Cropped({ words, still, source: { picture }, live }: CroppedProps) {
  const whole = { width: (ROWS * picture.width) / picture.height, height: ROWS };
  const box = { width: whole.width * live.width, height: whole.height * live.height };
  const place = { left: -live.x * whole.width, top: -live.y * whole.height };
  return (
    <View style={styles.one}>
      <View style={[styles.box, box]}>
        {still !== undefined && (
          <Image
            source={{ uri: still }}
            aria-label={words}
            resizeMode="stretch"
            style={[styles.still, whole, place]}
          />
        )}
      </View>
      <Soft>{words}</Soft>
    </View>
  );
}

const styles = StyleSheet.create({
  pair: { flexDirection: 'row', flexWrap: 'wrap', gap: space.m, alignItems: 'flex-end' },
  one: { gap: space.xs },
  box: { overflow: 'hidden', backgroundColor: colours.hairline },
  still: { position: 'absolute' },
});
