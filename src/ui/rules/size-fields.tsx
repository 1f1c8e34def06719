import { StyleSheet, View } from 'react-native';
import { Button } from 'react-native-paper';
import { useController } from 'react-hook-form';
import { type TakenSizes, usualSize } from '@core/outlets/taken-sizes';
import type { Size } from '@core/picture/size';
import { Choice } from '../parts/choice';
import { NumberField } from '../parts/number-field';
import { RefusalNotice } from '../parts/refusal';
import { Tool } from '../parts/tool';
import { Soft } from '../parts/words';
import { space } from '../theme/tokens';
import type { SheetControl } from './value-field';

const KINDS = [
  { value: 'one', label: 'One size' },
  { value: 'several', label: 'Several' },
  { value: 'range', label: 'A range' },
] as const;

/** Sizes of another kind, made of those that there are: going back and forth loses as little as can be. */
function toTakenSizes(kind: TakenSizes['kind'], sizes: TakenSizes): TakenSizes {
  const usual = usualSize(sizes);
  const { width, height } = usual;
  if (kind === sizes.kind) return sizes;
  if (kind === 'one') return { kind, size: { width, height } };
  if (kind === 'several') return { kind, sizes: [{ width, height }] };
  const size = { width, height };
  return { kind, least: size, most: size, narrowest: size, widest: size, usual: size };
}

/** The sizes of picture that a placement takes. */
export function SizeFields({ control, index }: { control: SheetControl; index: number }) {
  const { field, fieldState } = useController({ control, name: `placements.${index}.sizes` });
  const sizes = field.value;
  const problems = listProblems(fieldState.error);
  return (
    <View style={styles.group}>
      <Soft>Sizes that are taken</Soft>
      <Choice
        label="Sizes that are taken"
        value={sizes.kind}
        options={KINDS}
        onChange={(kind) => field.onChange(toTakenSizes(kind, sizes))}
      />
      {sizes.kind === 'one' && (
        <SizeEntry label="Size" size={sizes.size} onTake={(size) => field.onChange({ ...sizes, size })} />
      )}
      {sizes.kind === 'several' && (
        <>
          {sizes.sizes.map((size, i) => (
            <View key={i} style={styles.row}>
              <SizeEntry
                label={`Size ${i + 1}`}
                size={size}
                onTake={(made) =>
                  field.onChange({ ...sizes, sizes: sizes.sizes.map((one, k) => (k === i ? made : one)) })
                }
              />
              {sizes.sizes.length > 1 && (
                <Tool
                  icon="delete-outline"
                  label={`Remove size ${i + 1}`}
                  words=""
                  onPress={() => field.onChange({ ...sizes, sizes: sizes.sizes.filter((_, k) => k !== i) })}
                />
              )}
            </View>
          ))}
          <Button
            icon="plus"
            style={styles.left}
            onPress={() => field.onChange({ ...sizes, sizes: [...sizes.sizes, usualSize(sizes)] })}
          >
            Add a size
          </Button>
        </>
      )}
      {sizes.kind === 'range' &&
        (
          [
            ['usual', 'Usual'],
            ['least', 'Smallest'],
            ['most', 'Largest'],
            ['narrowest', 'Narrowest ratio'],
            ['widest', 'Widest ratio'],
          ] as const
        ).map(([part, label]) => (
          <SizeEntry
            key={part}
            label={label}
            size={sizes[part]}
            onTake={(size) => field.onChange({ ...sizes, [part]: size })}
          />
        ))}
      {problems.map((problem) => (
        <RefusalNotice key={problem}>{problem}</RefusalNotice>
      ))}
    </View>
  );
}

function SizeEntry({ label, size, onTake }: { label: string; size: Size; onTake: (size: Size) => void }) {
  return (
    <View style={[styles.row, styles.grow]}>
      <NumberField
        label={`${label}: width`}
        least={1}
        value={String(size.width)}
        onTake={(width) => onTake({ ...size, width })}
      />
      <NumberField
        label={`${label}: height`}
        least={1}
        value={String(size.height)}
        onTake={(height) => onTake({ ...size, height })}
      />
    </View>
  );
}

/** Every message of an error that may lie deep in a value. */
export function listProblems(error: unknown): string[] {
  if (typeof error !== 'object' || error === null) return [];
  const { message, ref: _ref, type: _type, ...deeper } = error as Record<string, unknown>;
  const own = typeof message === 'string' && message !== '' ? [message] : [];
  return [...new Set([...own, ...Object.values(deeper).flatMap(listProblems)])];
}

const styles = StyleSheet.create({
  group: { gap: space.s },
  row: { flexDirection: 'row', gap: space.s, alignItems: 'flex-end' },
  grow: { flex: 1 },
  left: { alignSelf: 'flex-start' },
});
