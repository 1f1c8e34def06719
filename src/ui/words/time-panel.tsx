import { StyleSheet, View } from 'react-native';
import { formatTimecode } from '@core/time/timecode';
import { parseEntry } from '@core/time/timecode-entry';
import { rateValue } from '@core/time/frame-rate';
import { type Stretch, toSpans, toStretches } from '@core/words/spans';
import { MAX_FADE } from '@core/words/text-block';
import { Choice } from '../parts/choice';
import { EntryField } from '../parts/entry-field';
import { NumberField } from '../parts/number-field';
import { Tool } from '../parts/tool';
import { ToolRow } from '../parts/tool-row';
import { Soft } from '../parts/words';
import { space } from '../theme/tokens';
import { useClipTime } from './use-clip-time';
import { useTimeline, type WordsTools } from './use-words';

/** A block that gets a time of its own is seen so long to begin with, in seconds. */
const BEGIN = 3;

/** When the block is seen: the whole clip long, or from one frame to another. */
export function TimePanel({ tools }: { tools: WordsTools }) {
  const { block } = tools;
  const timeline = useTimeline();
  const time = useClipTime();
  if (!block) return <Soft>Tap a block on the picture to say when it is seen.</Soft>;
  if (block.on === 'card') return <Soft>It is seen as long as the end card is.</Soft>;
  const [at] = block.spans ? toStretches(block.spans, timeline) : [];
  const setStretch = (stretch: Stretch) => {
    const spans = toSpans(stretch, timeline);
    if (spans) tools.change('time', { spans }, 'time');
  };
  const begin = () => {
    const from = time.frame ?? 0;
    setStretch({ from, to: Math.min(time.frames, from + Math.round(BEGIN * rateValue(timeline.rate))) });
  };
  const type = (edge: 'from' | 'to') => (text: string) => {
    const entered = at
      ? parseEntry(text, { rate: timeline.rate, from: edge === 'from' ? at.from : at.to - 1 })
      : null;
    if (entered === null || !at) return `“${text}” is not a time. Type a timecode, or +12 for frames.`;
    if (edge === 'from' && entered >= at.to) return 'It would begin after its end.';
    if (edge === 'to' && (entered < at.from || entered >= time.frames)) {
      return `Type a time from its first frame to the end of the clip, ${formatTimecode(time.frames - 1, timeline.rate)}.`;
    }
    setStretch(edge === 'from' ? { ...at, from: entered } : { ...at, to: entered + 1 });
    return null;
  };
  return (
    <View style={styles.panel}>
      <Choice
        label="When the block is seen"
        value={block.spans ? 'range' : 'whole'}
        options={[
          { value: 'whole', label: 'The whole clip' },
          { value: 'range', label: 'A range' },
        ]}
        onChange={(value) => (value === 'whole' ? tools.change('time', { spans: null }) : begin())}
      />
      {block.spans && !at && <Soft>What it belongs to is cut out of the clip. It comes back with it.</Soft>}
      {at && (
        <View style={styles.row}>
          <EntryField
            label="First frame"
            value={formatTimecode(at.from, timeline.rate)}
            onSubmit={type('from')}
          />
          <EntryField
            label="Last frame"
            value={formatTimecode(at.to - 1, timeline.rate)}
            onSubmit={type('to')}
          />
        </View>
      )}
      <View style={styles.row}>
        <NumberField
          label="Fade"
          unit="s"
          value={String(block.fade)}
          least={0}
          most={MAX_FADE}
          onTake={(fade) => tools.change('time', { fade }, 'fade')}
        />
        {at && time.frame !== null && (
          <ToolRow>
            <Tool
              icon="ray-start-arrow"
              label="The block begins here"
              words="Begins here"
              disabled={time.frame >= at.to}
              onPress={() => setStretch({ ...at, from: time.frame ?? at.from })}
            />
            <Tool
              icon="ray-end-arrow"
              label="The block ends here"
              words="Ends here"
              disabled={time.frame < at.from}
              onPress={() => setStretch({ ...at, to: (time.frame ?? at.to) + 1 })}
            />
          </ToolRow>
        )}
      </View>
    </View>
  );
}

const styles = StyleSheet.create({
  panel: { gap: space.s },
  row: { flexDirection: 'row', gap: space.s, alignItems: 'flex-end' },
});
