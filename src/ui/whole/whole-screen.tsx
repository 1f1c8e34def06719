import { useLocalSearchParams, useRouter } from 'expo-router';
import { useEffect, useMemo, useState } from 'react';
import { type LayoutChangeEvent, StyleSheet, View } from 'react-native';
import { Gesture, GestureDetector } from 'react-native-gesture-handler';
import { DEVICES } from '@core/outlets/placement';
import { setCanvas } from '@state/job';
import { canvasView, player, usePlayer } from '@state/player';
import { useClip, useJob } from '../job/job-context';
import { useTarget } from '../job/use-target';
import { PictureView } from '../parts/picture-view';
import { Tool } from '../parts/tool';
import { useKeys } from '../parts/use-keys';
import { Soft, Strong } from '../parts/words';
import { ZoneDrawing } from '../rules/zone-drawing';
import { colours, space } from '../theme/tokens';

/** A swipe that is shorter than this is none, in pixels. */
const MIN_SWIPE = 50;
/** Pages that lead here, and back. */
const FROM = ['frame', 'check', 'export'];

/** Screen of one canvas alone, as large as the page allows, playing with its sound: the way it will be seen. */
export function WholeScreen() {
  const { id } = useJob();
  const router = useRouter();
  const { from } = useLocalSearchParams<{ from?: string }>();
  const clip = useClip();
  const { label, placement } = useTarget();
  const playing = usePlayer((state) => state.playing);
  const [zoned, setZoned] = useState(true);
  const { canvases } = clip;
  const place = canvases.findIndex((canvas) => canvas.id === clip.canvas);
  const device = DEVICES.find((known) => placement.zones[known].length > 0);
  const zones = device ? placement.zones[device] : [];
  const acts = useMemo(() => {
    const go = (by: number) => {
      const next = canvases[(place + by + canvases.length) % canvases.length];
      if (next) setCanvas(id, next.id);
    };
    const back = FROM.find((page) => page === from) ?? 'frame';
    return { go, leave: () => router.replace(`/job/${id}/${back}`) };
  }, [canvases, place, id, from, router]);
  const play = () => (playing ? player.togglePlay() : player.playCut(clip.cut));
  const keys = useMemo(
    () => ({
      ArrowLeft: () => acts.go(-1),
      ArrowRight: () => acts.go(1),
      Escape: acts.leave,
      o: () => setZoned((on) => !on),
    }),
    [acts],
  );
  useKeys(keys);
  // Nobody hears it go on behind another page.
  useEffect(
    () => () => {
      if (usePlayer.getState().playing) player.togglePlay();
    },
    [],
  );
  const several = canvases.length > 1;
  return (
    <View style={styles.page}>
      <View role="banner" style={styles.row}>
        <Tool icon="arrow-left" label="Back" words="" hotkey="Esc" onPress={acts.leave} />
        <View style={styles.names}>
          <Strong role="heading" aria-level={1} numberOfLines={1}>
            {label}
          </Strong>
          {several && <Soft>{`Canvas ${place + 1} of ${canvases.length}`}</Soft>}
        </View>
        {zones.length > 0 && (
          <Tool
            icon="view-dashboard-outline"
            label={`Overlay zones of ${label}`}
            words="Overlay zones"
            hotkey="O"
            pressed={zoned}
            onPress={() => setZoned(!zoned)}
          />
        )}
      </View>
      <Picture onSwipe={acts.go} zones={zoned ? zones : []} />
      <View style={[styles.row, styles.middle]}>
        {several && (
          <Tool icon="chevron-left" label="Canvas before" words="" hotkey="←" onPress={() => acts.go(-1)} />
        )}
        <Tool
          icon={playing ? 'pause' : 'play'}
          label={playing ? 'Pause' : 'Play the clip'}
          words={playing ? 'Pause' : 'Play'}
          onPress={play}
        />
        {several && (
          <Tool icon="chevron-right" label="Next canvas" words="" hotkey="→" onPress={() => acts.go(1)} />
        )}
      </View>
    </View>
  );
}

/** The canvas that is worked on; a swipe goes to the next. */
function Picture({
  onSwipe,
  zones,
}: {
  onSwipe: (by: number) => void;
  zones: Parameters<typeof ZoneDrawing>[0]['zones'];
}) {
  const { canvases, canvas: id } = useClip();
  const { label } = useTarget();
  const [room, setRoom] = useState({ width: 0, height: 0 });
  const canvas = canvases.find((known) => known.id === id);
  const swipe = Gesture.Pan()
    .runOnJS(true)
    .minDistance(10)
    .onEnd(({ translationX }) => {
      if (Math.abs(translationX) >= MIN_SWIPE) onSwipe(translationX < 0 ? 1 : -1);
    });
  if (!canvas) return null;
  const height = Math.min(room.height, (room.width * canvas.height) / canvas.width);
  const width = (height * canvas.width) / canvas.height;
  return (
    <GestureDetector gesture={swipe}>
      <View
        role="main"
        style={styles.picture}
        onLayout={({ nativeEvent }: LayoutChangeEvent) => setRoom(nativeEvent.layout)}
      >
        {height > 0 && (
          <View style={{ width, height }}>
            <PictureView
              key={canvas.id}
              view={canvasView(canvas.id)}
              label={`${label}, whole`}
              width={width}
              height={height}
            />
            {zones.length > 0 && (
              <View style={styles.over} pointerEvents="none">
                <ZoneDrawing width={width} height={height} zones={zones} />
              </View>
            )}
          </View>
        )}
      </View>
    </GestureDetector>
  );
}

const styles = StyleSheet.create({
  page: { flex: 1, backgroundColor: colours.paper, padding: space.s, gap: space.s },
  row: { flexDirection: 'row', alignItems: 'center', gap: space.s },
  middle: { justifyContent: 'center' },
  names: { flex: 1 },
  picture: { flex: 1, alignItems: 'center', justifyContent: 'center', userSelect: 'none' },
  over: { position: 'absolute', left: 0, top: 0 },
});
