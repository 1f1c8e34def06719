import { type PropsWithChildren, useMemo, useState } from 'react';
import { type LayoutChangeEvent, StyleSheet, useWindowDimensions, View } from 'react-native';
import { formatTimecode } from '@core/time/timecode';
import { parseEntry } from '@core/time/timecode-entry';
import { player, usePlayer } from '@state/player';
import { JobPage } from '../job/job-page';
import { useTarget } from '../job/use-target';
import { Choice } from '../parts/choice';
import { EntryField } from '../parts/entry-field';
import { usePageRoom } from '../parts/page-room';
import { PictureView } from '../parts/picture-view';
import { Transport } from '../parts/transport';
import { useKeys } from '../parts/use-keys';
import { colours, space, WIDE } from '../theme/tokens';
import { ClipRow } from './clip-row';
import { CutFrames } from './cut-frames';
import { CutTray } from './cut-tray';
import { Filmstrip } from './filmstrip';
import { FitPanel } from './fit-panel';
import { LengthRuler } from './length-ruler';
import { ListPanel } from './list-panel';
import { PartsPanel } from './parts-panel';
import { RangeStrip } from './range-strip';
import { ShotGallery } from './shot-gallery';
import { ShotTray } from './shot-tray';
import { type CutTools, useCut } from './use-cut';

const WORK = [
  { value: 'cut', label: 'Cut' },
  { value: 'shots', label: 'Shots' },
  { value: 'length', label: 'To length' },
  { value: 'lists', label: 'Lists' },
] as const;
type Work = (typeof WORK)[number]['value'];

/** Screen of the cut: ranges of the masters to the exact frame, their order, and the resulting length. */
export function CutScreen() {
  const tools = useCut();
  const { label } = useTarget();
  const [work, setWork] = useState<Work>('cut');
  const wide = useWindowDimensions().width >= WIDE;
  useCutKeys(tools);
  return (
    <JobPage
      title="Length"
      subtitle={`For ${label}`}
      tray={
        <View style={wide ? styles.trayWide : styles.tray}>
          {work === 'cut' && <CutTray tools={tools} />}
          {work === 'shots' && <ShotTray tools={tools} />}
          <View style={wide && styles.choiceWide}>
            <Choice label="What to work on" value={work} options={WORK} onChange={setWork} />
          </View>
        </View>
      }
    >
      <ClipRow />
      <MasterPicture tools={tools}>
        <Transport />
        {wide && <LengthRuler cut={tools.cut} />}
        {wide && work === 'cut' && <RangeFields tools={tools} />}
      </MasterPicture>
      <View style={styles.strip}>
        <Filmstrip tools={tools} shotMarks={work === 'shots'} />
        <RangeStrip tools={tools} />
        {!wide && <LengthRuler cut={tools.cut} />}
      </View>
      {work === 'shots' && <ShotGallery tools={tools} />}
      {work === 'cut' && !wide && <RangeFields tools={tools} />}
      {work === 'length' && <FitPanel />}
      {work === 'length' && <PartsPanel />}
      {work === 'lists' && <ListPanel />}
    </JobPage>
  );
}

/** The range's ends as timecode that can be typed. */
function RangeFields({ tools }: { tools: CutTools }) {
  const { range, source } = tools;
  const own = range.master === source.id;
  if (!own) return null;
  const type = (edge: 'in' | 'out', from: number) => (text: string) => {
    const entered = parseEntry(text, { rate: source.rate, from });
    if (entered === null)
      return `“${text}” is not a time. Type a timecode, a length such as 1.5s, or +12 for frames.`;
    if (entered < 0 || entered >= source.frames) {
      return `“${text}” is outside the master. It ends at ${formatTimecode(source.frames - 1, source.rate)}.`;
    }
    tools.trim(edge, entered, true);
    return null;
  };
  return (
    <View style={styles.row}>
      <EntryField
        label="First frame kept"
        value={formatTimecode(range.in, source.rate)}
        onSubmit={type('in', range.in)}
      />
      <EntryField
        label="Last frame kept"
        value={formatTimecode(range.out - 1, source.rate)}
        onSubmit={type('out', range.out - 1)}
      />
    </View>
  );
}

/** Keys of this page; the list of keys names them. */
function useCutKeys(tools: CutTools): void {
  const { trim, split, remove, move, slip, index } = tools;
  const keys = useMemo(
    () => ({
      a: () => trim('in', usePlayer.getState().frame, true),
      b: () => trim('out', usePlayer.getState().frame, true),
      c: split,
      Delete: remove,
      'Shift+ArrowLeft': () => move(index - 1),
      'Shift+ArrowRight': () => move(index + 1),
      ',': () => slip(-1),
      '.': () => slip(1),
      ArrowLeft: () => player.showFrame(usePlayer.getState().frame - 1),
      ArrowRight: () => player.showFrame(usePlayer.getState().frame + 1),
    }),
    [trim, split, remove, move, slip, index],
  );
  useKeys(keys);
}

/** Rows that clips, strips and the ends of a range need, and the fewest that the master takes, in pixels. */
const BELOW = { phone: 300, wide: 330 };
const MIN_ROWS = 150;
/** On a wide page the columns beside it are this wide at least. */
const SIDE = 320;

/** The master as large as the page lets it be; while an end is dragged, the two frames that meet there. */
function MasterPicture({ tools, children }: PropsWithChildren<{ tools: CutTools }>) {
  const { picture } = tools.source;
  const [room, setRoom] = useState(0);
  const wide = useWindowDimensions().width >= WIDE;
  const rows = Math.max(MIN_ROWS, usePageRoom() - (wide ? BELOW.wide : BELOW.phone));
  const columns = wide ? room - SIDE - space.m : room;
  const height = Math.min(columns * (picture.height / picture.width), rows);
  return (
    <View
      style={wide ? styles.beside : styles.above}
      onLayout={(event: LayoutChangeEvent) => setRoom(event.nativeEvent.layout.width)}
    >
      {height > 0 && (
        <View style={styles.picture}>
          <PictureView
            view="master"
            label="The master"
            width={height * (picture.width / picture.height)}
            height={height}
          />
          <CutFrames tools={tools} />
        </View>
      )}
      <View style={wide ? styles.side : styles.above}>{children}</View>
    </View>
  );
}

const styles = StyleSheet.create({
  row: { flexDirection: 'row', gap: space.m },
  strip: { gap: space.s, paddingHorizontal: 14 },
  above: { gap: space.s },
  beside: { flexDirection: 'row', gap: space.m, alignItems: 'flex-start' },
  side: { flex: 1, gap: space.m },
  tray: { gap: space.m },
  trayWide: { flexDirection: 'row', alignItems: 'center', gap: space.m, justifyContent: 'space-between' },
  choiceWide: { flexShrink: 0, minWidth: 360, marginLeft: 'auto' },
  picture: { alignItems: 'center', backgroundColor: colours.paper, gap: space.s },
});
