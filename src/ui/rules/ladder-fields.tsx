import { StyleSheet, View } from 'react-native';
import { Button } from 'react-native-paper';
import { useController } from 'react-hook-form';
import { NumberField } from '../parts/number-field';
import { RefusalNotice } from '../parts/refusal';
import { Tool } from '../parts/tool';
import { Soft } from '../parts/words';
import { space } from '../theme/tokens';
import { listProblems } from './size-fields';
import type { SheetControl } from './value-field';

const PARTS = [
  ['width', 'Width', 'px', 1],
  ['height', 'Height', 'px', 1],
  ['bits', 'Video', 'Mb/s', 1e6],
] as const;

/** Fields of the renditions that the outlet compresses a clip to, the largest first. */
export function LadderFields({ control, index }: { control: SheetControl; index: number }) {
  const { field, fieldState } = useController({ control, name: `placements.${index}.ladder` });
  const steps = field.value;
  return (
    <View style={styles.group}>
      <Soft>What the outlet makes of a clip, the largest first.</Soft>
      {steps.map((step, i) => (
        <View key={i} style={styles.row}>
          {PARTS.map(([part, label, unit, scale]) => (
            <NumberField
              key={part}
              label={`${label} ${i + 1}`}
              unit={unit}
              least={0}
              value={String(step[part] / scale)}
              onTake={(value) =>
                field.onChange(
                  steps.map((one, k) => (k === i ? { ...one, [part]: Math.round(value * scale) } : one)),
                )
              }
            />
          ))}
          <Tool
            icon="delete-outline"
            label={`Remove step ${i + 1}`}
            words=""
            onPress={() => field.onChange(steps.filter((_, k) => k !== i))}
          />
        </View>
      ))}
      <Button
        icon="plus"
        style={styles.left}
        onPress={() =>
          field.onChange([...steps, steps.at(-1) ?? { width: 1080, height: 1920, bits: 4_000_000 }])
        }
      >
        Add a step
      </Button>
      {listProblems(fieldState.error).map((problem) => (
        <RefusalNotice key={problem}>{problem}</RefusalNotice>
      ))}
    </View>
  );
}

const styles = StyleSheet.create({
  group: { gap: space.s },
  row: { flexDirection: 'row', gap: space.s, alignItems: 'flex-end' },
  left: { alignSelf: 'flex-start' },
});
