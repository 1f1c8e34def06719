import { useMemo } from 'react';
import { Image, Pressable, ScrollView, StyleSheet, View } from 'react-native';
import type { LookReason, ShotState } from '@core/check/shot-states';
import type { Shot } from '@core/cut/shot';
import { formatTimecode } from '@core/time/timecode';
import { player } from '@state/player';
import { useStills } from '@state/picture';
import { useSource } from '../job/job-context';
import { Soft, Strong } from '../parts/words';
import { colours, space } from '../theme/tokens';

const HEIGHT = 48;

const REASONS: Record<LookReason, string> = {
  bare: 'has bars',
  soft: 'is soft',
  twice: 'shows its subject twice',
  changed: 'changed since its tick',
};

/** Where a shot's framing stands, in a word or two; what needs a look comes first. */
function stateWords(state: ShotState | undefined): string {
  if (!state) return 'not in the clip';
  const [reason] = state.look;
  // Whoever ticked it saw how it looks.
  if (reason && !state.ticked) return REASONS[reason];
  const words = [
    state.keyframed ? 'keyframed' : state.framed ? 'framed' : 'untouched',
    state.detached.length > 0 ? 'by itself' : '',
    state.ticked ? 'ticked' : '',
  ];
  return words.filter(Boolean).join(', ');
}

/** The shots of the master; each has a framing of its own, and says how it stands. */
export function ShotStrip({
  shots,
  states,
  current,
}: {
  shots: readonly Shot[];
  states: readonly ShotState[];
  current: string;
}) {
  const master = useSource();
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
        const state = states.find((shotState) => shotState.shot.id === shot.id);
        const words = stateWords(state);
        const look = !state?.ticked && (state?.look.length ?? 0) > 0;
        const still = stills[frames[i] ?? -1];
        return (
          <Pressable
            key={shot.id}
            role="button"
            aria-label={`Shot ${i + 1}, ${words}, from ${formatTimecode(shot.in, master.rate)}`}
            aria-pressed={on}
            onPress={() => player.showFrame(shot.in)}
            style={[styles.shot, { width: width + 8 }, on && styles.on]}
          >
            <View style={{ width, height: HEIGHT, backgroundColor: colours.hairline }}>
              {still !== undefined && <Image source={{ uri: still }} style={styles.image} />}
            </View>
            <Strong style={styles.number}>
              {state?.ticked ? '✓ ' : look ? '! ' : ''}
              {i + 1} <Soft style={look && styles.look}>{words}</Soft>
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
  look: { color: colours.weld },
});
