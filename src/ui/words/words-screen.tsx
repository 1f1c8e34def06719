import { type ReactNode, useEffect, useMemo, useState } from 'react';
import { type LayoutChangeEvent, StyleSheet, useWindowDimensions, View } from 'react-native';
import { player, usePlayer } from '@state/player';
import { useWordsBench, WORDS_WORK, type WordsWork } from '@state/words';
import { useClip } from '../job/job-context';
import { JobPage } from '../job/job-page';
import { useCanvasLabel } from '../job/use-target';
import { CanvasRow } from '../frame/canvas-cards';
import { Choice } from '../parts/choice';
import { usePageRoom } from '../parts/page-room';
import { Transport } from '../parts/transport';
import { useKeys } from '../parts/use-keys';
import { space, WIDE } from '../theme/tokens';
import { BlockBench } from './block-bench';
import { CaptionWork, CaptionTray } from './caption-work';
import { CoverTray, CoverWork } from './cover-work';
import { TitleTray, TitleWork } from './title-work';
import { useCaptions } from './use-captions';
import { useWords, type WordsTools } from './use-words';

const WORK_LABELS: Record<WordsWork, string> = { titles: 'Titles', captions: 'Captions', cover: 'Cover' };
const WORK_OPTIONS = WORDS_WORK.map((value) => ({ value, label: WORK_LABELS[value] }));

/** The words on the picture: titles, captions and the cover. */
export function WordsScreen() {
  const tools = useWords();
  const captions = useCaptions(tools);
  const work = useWordsBench((state) => state.work);
  const labelOf = useCanvasLabel();
  const wide = useWindowDimensions().width >= WIDE;
  useWordsKeys(tools);
  useSidePreview(tools);
  const chosen = <Choice label="Words" value={work} options={WORK_OPTIONS} onChange={setWork} />;
  const parts: Record<WordsWork, { tray: ReactNode; body: ReactNode }> = {
    titles: { tray: <TitleTray tools={tools} />, body: <TitleWork tools={tools} /> },
    captions: {
      tray: <CaptionTray captions={captions} />,
      body: <CaptionWork tools={tools} captions={captions} />,
    },
    cover: { tray: <CoverTray tools={tools} />, body: <CoverWork tools={tools} /> },
  };
  return (
    <JobPage
      title="Words"
      subtitle={`On ${labelOf(tools.canvas)}`}
      tray={<View style={wide && styles.tray}>{parts[work].tray}</View>}
    >
      {chosen}
      <CanvasRow />
      <Pictures tools={tools}>{parts[work].body}</Pictures>
    </JobPage>
  );
}

const setWork = (work: WordsWork) => useWordsBench.setState({ work, block: null });

/** While the cover or a block of the end card is worked on, that is shown in the place of the clip. */
function useSidePreview({ text, side }: WordsTools): void {
  const { canvases } = useClip();
  useEffect(() => {
    if (side !== 'clip') player.setWordsDraft({ text, canvases, side });
    return () => player.setWordsDraft(null);
  }, [side, text, canvases]);
}

/** Rows that what is above and below the picture takes on a phone, and the fewest of the picture. */
const BELOW: Record<WordsWork, number> = { titles: 120, captions: 400, cover: 450 };
/** Rows of the strip of a block. */
const STRIP = 150;
const MIN_ROWS = 170;
/** On a wide page the picture takes this share of the columns at most. */
const MAX_WIDE = 0.5;

/** The canvas as large as the page lets it be; on a wide page the work stands beside it. */
function Pictures({ tools, children }: { tools: WordsTools; children: ReactNode }) {
  const [room, setRoom] = useState(0);
  const work = useWordsBench((state) => state.work);
  const wide = useWindowDimensions().width >= WIDE;
  const page = usePageRoom();
  const aspect = tools.canvas.width / tools.canvas.height;
  const most = wide ? page - 190 : page - BELOW[work] - (work === 'titles' && tools.block ? STRIP : 0);
  const rows = Math.min(Math.max(MIN_ROWS, most), (wide ? room * MAX_WIDE : room - 6) / aspect);
  return (
    <View
      style={wide ? styles.beside : styles.above}
      onLayout={(event: LayoutChangeEvent) => setRoom(event.nativeEvent.layout.width)}
    >
      {room > 0 && page > 0 && (
        <View style={styles.picture}>
          <BlockBench tools={tools} width={rows * aspect} height={rows} />
          <View style={styles.transport}>
            <Transport />
          </View>
        </View>
      )}
      <View style={wide ? styles.side : styles.above}>{children}</View>
    </View>
  );
}

/** Keys of this page; the list of keys names them. */
function useWordsKeys(tools: WordsTools): void {
  const keys = useMemo(() => {
    const nudge = (x: number, y: number) => () => {
      if (!tools.block) return player.showFrame(usePlayer.getState().frame + Math.sign(x));
      const rect = tools.rectOf(tools.block);
      tools.moveTo({ ...rect, x: rect.x + x, y: rect.y + y }, true);
    };
    return {
      ArrowLeft: nudge(-1, 0),
      ArrowRight: nudge(1, 0),
      ArrowUp: nudge(0, -1),
      ArrowDown: nudge(0, 1),
      'Shift+ArrowLeft': nudge(-10, 0),
      'Shift+ArrowRight': nudge(10, 0),
      'Shift+ArrowUp': nudge(0, -10),
      'Shift+ArrowDown': nudge(0, 10),
      Delete: tools.remove,
      'Ctrl+d': tools.copy,
      Escape: () => useWordsBench.setState({ block: null, cue: null }),
    };
  }, [tools]);
  useKeys(keys);
}

const styles = StyleSheet.create({
  above: { gap: space.s },
  beside: { flexDirection: 'row', gap: space.l, alignItems: 'flex-start' },
  side: { flex: 1, gap: space.m },
  picture: { alignItems: 'center', gap: space.xs },
  transport: { alignSelf: 'stretch' },
  tray: { maxWidth: 900 },
});
