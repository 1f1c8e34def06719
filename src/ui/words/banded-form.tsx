import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { Button } from 'react-native-paper';
import { BAND_COLOURS } from '@core/layout/layout';
import { activeCanvas } from '@core/job/clip';
import { bandBlocks } from '@core/words/banded-clip';
import { freshBlockId } from '@core/words/block-list';
import { NO_TEXT } from '@core/words/clip-text';
import type { TextBlock } from '@core/words/text-block';
import { dispatch } from '@state/jobs';
import { useWordsBench } from '@state/words-bench';
import { useClip, useJob } from '../job/job-context';
import { Swatches } from '../parts/swatches';
import { TextArea } from '../parts/text-area';
import { Soft } from '../parts/words';
import { space } from '../theme/tokens';

/** A banded clip in one step: the picture fitted between bands, with words on both. */
export function BandedForm({ onDone }: { onDone: () => void }) {
  const { id } = useJob();
  const clip = useClip();
  const canvas = activeCanvas(clip);
  const [above, setAbove] = useState('');
  const [below, setBelow] = useState('');
  const [colour, setColour] = useState<string>(BAND_COLOURS[0]);
  const make = () => {
    const { blocks } = clip.text ?? NO_TEXT;
    const made: TextBlock[] = [...blocks];
    for (const block of bandBlocks({ above, below }, colour, () => '')) {
      made.push({ ...block, id: freshBlockId(made) });
    }
    const layout = { ...canvas.layout, kind: 'banded' as const, banded: { place: 0.5, colour } };
    dispatch(id, { type: 'make-banded', canvas: canvas.id, layout, blocks: made });
    useWordsBench.setState({ block: made[blocks.length]?.id ?? null });
    onDone();
  };
  return (
    <View style={styles.form}>
      <Soft>The whole picture is fitted into this canvas, with words on the bands that are left.</Soft>
      <View style={styles.row}>
        <View style={styles.half}>
          <TextArea label="Headline above" value={above} rows={1} onChange={setAbove} />
        </View>
        <View style={styles.half}>
          <TextArea label="Line below" value={below} rows={1} onChange={setBelow} />
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
  row: { flexDirection: 'row', gap: space.s },
  half: { flex: 1 },
});
