import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { Button } from 'react-native-paper';
import { BAND_COLOURS } from '@core/layout/kinds/banded';
import { activeCanvas } from '@core/job/clip';
import { isOnBand, withBandWords } from '@core/words/banded-clip';
import { NO_TEXT } from '@core/words/clip-text';
import { dispatch } from '@state/job';
import { useWordsBench } from '@state/words';
import { useClip, useJob } from '../job/job-context';
import { Choice } from '../parts/choice';
import { Swatches } from '../parts/swatches';
import { MAX_TEXT } from '@core/words/text-block';
import { TextArea } from '../parts/text-area';
import { Soft } from '../parts/words';
import { space } from '../theme/tokens';

type ChosenBy = 'clip' | 'range';
const BY: readonly { value: ChosenBy; label: string }[] = [
  { value: 'clip', label: 'One headline' },
  { value: 'range', label: 'One for each range' },
];

/** A banded clip in one step: the picture fitted between bands, with words on both. */
export function BandedForm({ onDone }: { onDone: () => void }) {
  const { id } = useJob();
  const clip = useClip();
  const canvas = activeCanvas(clip);
  const { cut } = clip;
  const { blocks } = clip.text ?? NO_TEXT;
  const [above, setAbove] = useState<readonly string[]>([]);
  const [below, setBelow] = useState('');
  const [by, setBy] = useState<ChosenBy>('clip');
  const [colour, setColour] = useState<string>(BAND_COLOURS[0]);
  const ranges = by === 'range' ? cut : [null];
  const make = () => {
    const headlines = ranges.map((range, i) => ({ text: above[i] ?? '', spans: range && [range] }));
    const words = { above: headlines, below: [{ text: below, spans: null }] };
    const made = withBandWords(blocks, words, colour);
    const layout = { ...canvas.layout, kind: 'banded' as const, banded: { place: 0.5, colour } };
    dispatch(id, { type: 'make-banded', canvas: canvas.id, layout, blocks: made });
    useWordsBench.setState({ block: made.find(isOnBand)?.id ?? null });
    onDone();
  };
  return (
    <View style={styles.form}>
      <Soft>
        The whole picture is fitted into this canvas, with words on the bands that are left.
        {blocks.some(isOnBand) && ' They take the place of the words that are on the bands now.'}
      </Soft>
      {cut.length > 1 && (
        <Choice label="How long the headline stays" value={by} options={BY} onChange={setBy} />
      )}
      <View style={styles.row}>
        {ranges.map((range, i) => (
          <View key={i} style={styles.half}>
            <TextArea
              label={range ? `Headline above range ${i + 1}` : 'Headline above'}
              value={above[i] ?? ''}
              rows={1}
              most={MAX_TEXT}
              onChange={(text) => setAbove(ranges.map((_, n) => (n === i ? text : (above[n] ?? ''))))}
            />
          </View>
        ))}
        <View style={styles.half}>
          <TextArea label="Line below" value={below} rows={1} most={MAX_TEXT} onChange={setBelow} />
        </View>
      </View>
      <Swatches label="Bands" value={colour} onTake={setColour} />
      <View style={styles.row}>
        <Button mode="contained" onPress={make}>
          Make it banded
        </Button>
        <Button mode="text" onPress={onDone}>
          Leave it
        </Button>
      </View>
    </View>
  );
}

const styles = StyleSheet.create({
  form: { gap: space.s },
  row: { flexDirection: 'row', gap: space.s, flexWrap: 'wrap' },
  half: { flexGrow: 1, flexBasis: 150 },
});
