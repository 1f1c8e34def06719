import { useMemo } from 'react';
import { Image, StyleSheet, View } from 'react-native';
import { formatTimecode } from '@core/time/timecode';
import { useStills } from '@state/picture';
import { Soft } from '../parts/words';
import { colours, space } from '../theme/tokens';
import type { CutTools } from './use-cut';

const HEIGHT = 84;

/** The two frames that meet where a range ends or begins: the last that is kept on one side, the first on the other. */
export function CutFrames({ tools }: { tools: CutTools }) {
  const { range, source, index, cut, dragged } = tools;
  const edge = dragged ?? 'in';
  const own = range.master === source.id;
  const before = cut[edge === 'in' ? index - 1 : index];
  const after = cut[edge === 'in' ? index : index + 1];
  const left = edge === 'out' ? range.out - 1 : before?.master === source.id ? before.out - 1 : null;
  const right = edge === 'in' ? range.in : after?.master === source.id ? after.in : null;
  const frames = useMemo(
    () => [left, right].filter((frame): frame is number => frame !== null),
    [left, right],
  );
  const stills = useStills(source, frames, HEIGHT);
  if (!own || (cut.length < 2 && dragged === null)) return null;
  const width = HEIGHT * (source.picture.width / source.picture.height);
  const side = (frame: number | null, name: string) => (
    <View style={styles.side}>
      <View style={[styles.frame, { width, height: HEIGHT }]}>
        {frame !== null && stills[frame] !== undefined && (
          <Image source={{ uri: stills[frame] }} aria-label={name} style={styles.image} />
        )}
      </View>
      <Soft>{frame === null ? 'nothing before' : `${name} ${formatTimecode(frame, source.rate)}`}</Soft>
    </View>
  );
  return (
    <View style={styles.row} aria-label="The two frames at the cut">
      {side(left, 'Last')}
      {side(right, 'First')}
    </View>
  );
}

const styles = StyleSheet.create({
  row: { flexDirection: 'row', gap: space.xs },
  side: { alignItems: 'center' },
  frame: { backgroundColor: colours.hairline },
  image: { width: '100%', height: '100%' },
});
