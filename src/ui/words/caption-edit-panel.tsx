import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { Button } from 'react-native-paper';
import { formatCount } from '@core/figures/figures';
import { rateValue } from '@core/time/frame-rate';
import { formatTimecode } from '@core/time/timecode';
import { parseEntry } from '@core/time/timecode-entry';
import { snapCue, shiftCues, stretchCues, replaceWords } from '@core/words/cue-edits';
import { CheckBox } from '../parts/check-box';
import { EntryField } from '../parts/entry-field';
import { TextArea } from '../parts/text-area';
import { Tool } from '../parts/tool';
import { ToolRow } from '../parts/tool-row';
import { Soft } from '../parts/words';
import { space } from '../theme/tokens';
import type { CaptionTools } from './use-captions';

/** Ends of captions snap to what is this near, in seconds. */
const SNAP = 0.25;

/** Panel for what is done to all captions: shifted, stretched, snapped, and their words found and replaced. */
export function CaptionEditPanel({ captions }: { captions: CaptionTools }) {
  const { listed, timeline, cuts, spoken } = captions;
  const { cues } = captions.captions;
  const [find, setFind] = useState('');
  const [replacement, setReplacement] = useState('');
  const [matchCase, setMatchCase] = useState(false);
  const [told, setTold] = useState<string | null>(null);
  const places = listed.flatMap(({ at }) => (at ? [at] : []));
  const first = places[0];
  const last = places[places.length - 1];
  if (!first || !last) return <Soft>No captions in the clip yet.</Soft>;
  const second = Math.round(rateValue(timeline.rate));
  const ids = new Set(cues.map(({ id }) => id));
  const shift = (by: number) => captions.setCues('shift', shiftCues(cues, ids, by, timeline), 'shift');
  const snapTo = (points: readonly number[]) => {
    const snapped = new Map(
      listed.map((one) => [one.cue.id, snapCue(one, points, Math.round(SNAP * second), timeline)]),
    );
    captions.setCues(
      'mend',
      cues.map((cue) => snapped.get(cue.id) ?? cue),
    );
  };
  const stretch = (edge: 'from' | 'to') => (text: string) => {
    const typed = parseEntry(text, { rate: timeline.rate, from: edge === 'from' ? first.from : last.to - 1 });
    if (typed === null || typed < 0) return `“${text}” is not a time. Type a timecode, or +12 for frames.`;
    const to = edge === 'from' ? { from: typed, to: last.to } : { from: first.from, to: typed + 1 };
    if (to.to <= to.from) return 'The captions would end before they begin.';
    captions.setCues('stretch', stretchCues(cues, to, timeline));
    return null;
  };
  const replace = () => {
    const changed = replaceWords(cues, find, replacement, matchCase);
    const { places: found, tooLong } = changed;
    if (found > 0) captions.setCues('replace', changed.cues);
    const left =
      tooLong > 0 ? ` ${formatCount(tooLong, 'caption', 'captions')} would become too long and stayed.` : '';
    setTold(
      found + tooLong === 0
        ? `“${find}” is in no caption.`
        : `${formatCount(found, 'place', 'places')} changed.${left}`,
    );
  };
  return (
    <View style={styles.panel}>
      <ToolRow>
        <Tool
          icon="chevron-double-left"
          label="−1 s: all captions earlier"
          words="−1 s"
          onPress={() => shift(-second)}
        />
        <Tool
          icon="chevron-left"
          label="−1 frame: all captions earlier"
          words="−1 frame"
          onPress={() => shift(-1)}
        />
        <Tool
          icon="chevron-right"
          label="+1 frame: all captions later"
          words="+1 frame"
          onPress={() => shift(1)}
        />
        <Tool
          icon="chevron-double-right"
          label="+1 s: all captions later"
          words="+1 s"
          onPress={() => shift(second)}
        />
        <Tool
          icon="content-cut"
          label="Snap ends to cuts that are near"
          words="To cuts"
          disabled={cuts.length === 0}
          onPress={() => snapTo(cuts)}
        />
        <Tool
          icon="account-voice"
          label="Snap ends to speech that is near"
          words="To speech"
          disabled={spoken.length === 0}
          onPress={() => snapTo(spoken.flatMap(({ from, to }) => [from, to]))}
        />
      </ToolRow>
      <View style={styles.row}>
        <EntryField
          label="First caption begins"
          value={formatTimecode(first.from, timeline.rate)}
          onSubmit={stretch('from')}
        />
        <EntryField
          label="Last caption ends"
          value={formatTimecode(last.to - 1, timeline.rate)}
          onSubmit={stretch('to')}
        />
      </View>
      <View style={styles.row}>
        <View style={styles.half}>
          <TextArea label="Find" value={find} rows={1} onChange={setFind} />
        </View>
        <View style={styles.half}>
          <TextArea label="Replace with" value={replacement} rows={1} onChange={setReplacement} />
        </View>
      </View>
      <View style={styles.row}>
        <CheckBox label="Match case" on={matchCase} onChange={setMatchCase} />
        <Button mode="outlined" disabled={find === ''} onPress={replace}>
          Replace all
        </Button>
      </View>
      {told !== null && <Soft aria-live="polite">{told}</Soft>}
    </View>
  );
}

const styles = StyleSheet.create({
  panel: { gap: space.s },
  row: { flexDirection: 'row', gap: space.s, alignItems: 'flex-end' },
  half: { flex: 1 },
});
