import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { Button, TextInput } from 'react-native-paper';
import { ownSize, RATIOS } from '@core/job/canvases';
import { activeCanvas } from '@core/job/clip';
import { RefusalNotice } from '../parts/refusal';
import { Heading, Soft } from '../parts/words';
import { space } from '../theme/tokens';
import { useClip } from './job-context';

/** A canvas by its ratio, or of a size that is typed. */
export function CanvasSize({ onTake }: { onTake: (width: number, height: number) => void }) {
  const [width, setWidth] = useState('');
  const [height, setHeight] = useState('');
  const [problem, setProblem] = useState<string | null>(null);
  const { rate } = activeCanvas(useClip());
  const take = () => {
    const size = ownSize(Number(width), Number(height), rate);
    if ('problem' in size) return setProblem(size.problem);
    setProblem(null);
    onTake(size.width, size.height);
  };
  return (
    <View style={styles.group}>
      <Heading>A custom size</Heading>
      <Soft>By ratio, with a shorter side of 1080, or typed. No outlet sets limits for it.</Soft>
      <View style={styles.ratios}>
        {RATIOS.map((ratio) => (
          <Button
            key={ratio.name}
            mode="outlined"
            accessibilityLabel={`Ratio ${ratio.name}`}
            onPress={() => onTake(ratio.width, ratio.height)}
          >
            {ratio.name}
          </Button>
        ))}
      </View>
      <View style={styles.row}>
        <Side name="Width" value={width} onChange={setWidth} />
        <Side name="Height" value={height} onChange={setHeight} />
        <Button mode="contained" onPress={take}>
          Use this size
        </Button>
      </View>
      {problem !== null && <RefusalNotice>{problem}</RefusalNotice>}
    </View>
  );
}

function Side({ name, value, onChange }: { name: string; value: string; onChange: (text: string) => void }) {
  return (
    <TextInput
      mode="outlined"
      label={name}
      aria-label={name}
      inputMode="numeric"
      value={value}
      onChangeText={onChange}
      style={styles.field}
    />
  );
}

const styles = StyleSheet.create({
  group: { gap: space.s },
  ratios: { flexDirection: 'row', flexWrap: 'wrap', gap: space.s },
  row: { flexDirection: 'row', alignItems: 'center', gap: space.s },
  field: { flex: 1 },
});
