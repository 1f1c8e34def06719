import { useMemo } from 'react';
import { Image, Pressable, ScrollView, StyleSheet, View } from 'react-native';
import { shotsOf } from '@core/job/job';
import { formatTimecode } from '@core/time/timecode';
import { showFrame } from '@state/player';
import { useStills } from '@state/stills';
import { useJob, useSource } from '../job/job-context';
import { Soft, Strong } from '../parts/words';
import { colours, space } from '../theme/tokens';

const HEIGHT = 48;

/** The shots of the master; each has a framing of its own. */
export function ShotStrip({ current }: { current: string }) {
  const { edit } = useJob();
  const master = useSource();
  const shots = useMemo(() => shotsOf(edit, master), [edit, master]);
  const frames = useMemo(() => shots.map((shot) => Math.floor((shot.in + shot.out) / 2)), [shots]);
  const stills = useStills(master, frames, HEIGHT);
  if (shots.length < 2) return null;
  const width = HEIGHT * (master.picture.width / master.picture.height);
  return (
    <ScrollView
      horizontal
      showsHorizontalScrollIndicator={false}
      style={styles.strip}
      contentContainerStyle={styles.row}
    >
      {shots.map((shot, i) => {
        const on = shot.id === current;
        const framed = edit.framings.some((one) => one.shot === shot.id);
        const state = framed ? 'framed' : 'in the middle';
        return (
          <Pressable
            key={shot.id}
            role="button"
            aria-label={`Shot ${i + 1}, from ${formatTimecode(shot.in, master.rate)}, ${state}`}
            aria-pressed={on}
            onPress={() => showFrame(shot.in)}
            style={[styles.shot, on && styles.on]}
          >
            <View style={{ width, height: HEIGHT, backgroundColor: colours.hairline }}>
              {stills[frames[i] ?? -1] !== undefined && (
                <Image source={{ uri: stills[frames[i] ?? -1] }} style={styles.image} />
              )}
            </View>
            <Strong style={styles.number}>
              {i + 1} <Soft>{state}</Soft>
            </Strong>
          </Pressable>
        );
      })}
    </ScrollView>
  );
}

const styles = StyleSheet.create({
  strip: { flexGrow: 0 },
  row: { gap: space.s, alignItems: 'flex-start', padding: 3 },
  shot: { padding: 2, borderWidth: 2, borderColor: 'transparent', borderRadius: 4 },
  on: { borderColor: colours.woad, backgroundColor: colours.sheet },
  image: { width: '100%', height: '100%' },
  number: { fontSize: 13 },
});
