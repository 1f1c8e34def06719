import { memo, useMemo } from 'react';
import { Pressable, StyleSheet, View } from 'react-native';
import { Button } from 'react-native-paper';
import { formatCount } from '@core/figures/figures';
import type { CueFault } from '@core/words/cue-lint';
import { faultWords } from '@core/words/cue-lint';
import type { ListedCue } from '@core/words/cue-list';
import { formatTimecode } from '@core/time/timecode';
import type { FrameRate } from '@core/time/frame-rate';
import { useWordsBench } from '@state/words';
import { Mark } from '../parts/mark';
import { Body, Figures, Soft } from '../parts/words';
import { card, colours, space, TARGET } from '../theme/tokens';
import { useShownCue } from './caption-work';
import type { CaptionTools } from './use-captions';
import { useClipTime } from './use-clip-time';

/** Cues that are listed at once: those around the one on screen. */
const ROWS = 40;

/** The clip's captions as a list: a tap works on one and shows its first frame. */
export function CueList({ captions }: { captions: CaptionTools }) {
  const { listed, faults, timeline } = captions;
  const chosen = useWordsBench((state) => state.cue);
  const page = useWordsBench((state) => state.cuePage);
  const shown = useShownCue(captions)?.cue.id ?? null;
  const { show } = useClipTime();
  const place = useMemo(
    () => listed.findIndex(({ cue }) => cue.id === (chosen ?? shown)),
    [listed, chosen, shown],
  );
  if (listed.length === 0) return <Soft>No captions yet. Bring a file in, or make them from a script.</Soft>;
  const from = page ?? Math.max(0, Math.floor(Math.max(0, place) / ROWS) * ROWS);
  const rows = listed.slice(from, from + ROWS);
  const wrong = listed.filter(({ cue }) => faults.has(cue.id)).length;
  const turn = (to: number) => useWordsBench.setState({ cuePage: to });
  return (
    <View style={styles.list}>
      <Soft aria-live="polite">{`${formatCount(listed.length, 'caption', 'captions')}, ${mendWords(wrong)}`}</Soft>
      {from > 0 && <Button onPress={() => turn(Math.max(0, from - ROWS))}>Earlier captions</Button>}
      {rows.map((row, i) => (
        <CueRow
          key={row.cue.id}
          row={row}
          number={from + i + 1}
          faults={faults.get(row.cue.id)}
          rate={timeline.rate}
          on={row.cue.id === chosen}
          playing={row.cue.id === shown}
          onPress={() => {
            captions.choose(row.cue.id);
            if (row.at) show(row.at.from);
          }}
        />
      ))}
      {from + ROWS < listed.length && <Button onPress={() => turn(from + ROWS)}>Later captions</Button>}
    </View>
  );
}

const mendWords = (wrong: number): string =>
  wrong === 0 ? 'nothing to mend' : wrong === 1 ? 'one to look at' : `${wrong} to look at`;

interface RowProps {
  row: ListedCue;
  number: number;
  faults: CueFault[] | undefined;
  rate: FrameRate;
  on: boolean;
  playing: boolean;
  onPress: () => void;
}

/** Rows are drawn anew only when what they show changes. */
const CueRow = memo(
  function CueRow({ row: { cue, at }, number, faults, rate, on, playing, onPress }: RowProps) {
    const time = at
      ? `${formatTimecode(at.from, rate)} to ${formatTimecode(at.to - 1, rate)}`
      : 'not in the clip now';
    const shown = (on && faults?.map(faultWords)) || [];
    // A name holds all that is read of the row.
    const words = [cue.text.replaceAll('\n', ' '), ...shown].join(' ');
    return (
      <Pressable
        role="button"
        aria-label={`Caption ${number}: ${time} ${words}`}
        aria-current={playing}
        onPress={onPress}
        style={[styles.row, on && styles.on, playing && styles.playing]}
      >
        <View style={styles.words}>
          <Figures style={styles.time}>{`${time} `}</Figures>
          <Body>{`${cue.text} `}</Body>
          {shown.map((fault) => (
            <Soft key={fault} style={styles.fault}>
              {`${fault} `}
            </Soft>
          ))}
        </View>
        {faults && <Mark standing="warn" />}
      </Pressable>
    );
  },
  (before, after) =>
    before.row.cue === after.row.cue &&
    before.row.at?.from === after.row.at?.from &&
    before.row.at?.to === after.row.at?.to &&
    before.number === after.number &&
    before.on === after.on &&
    before.playing === after.playing &&
    before.rate === after.rate &&
    JSON.stringify(before.faults) === JSON.stringify(after.faults),
);

const styles = StyleSheet.create({
  list: { gap: space.xs },
  row: {
    ...card,
    minHeight: TARGET,
    padding: space.s,
    flexDirection: 'row',
    gap: space.s,
    alignItems: 'center',
  },
  on: { borderColor: colours.woad, borderWidth: 2 },
  playing: { backgroundColor: colours.woadWash },
  words: { flex: 1 },
  time: { fontSize: 13, color: colours.softInk },
  fault: { color: colours.weld },
});
