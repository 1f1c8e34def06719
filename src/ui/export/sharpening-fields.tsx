import { StyleSheet, View } from 'react-native';
import { A_TOUCH, type Sharpening } from '@core/rate/encoding';
import { Choice } from '../parts/choice';
import { NumberField } from '../parts/number-field';
import { Soft } from '../parts/words';
import { space } from '../theme/tokens';
import { SharpeningLook } from './sharpening-look';

interface Props {
  sharpening: Sharpening | null;
  onChange: (sharpening: Sharpening | null) => void;
}

/** The fields of an unsharp mask, with their bounds. */
const FIELDS = [
  { key: 'radius', label: 'Radius', unit: '0.3–4 px', least: 0.3, most: 4, digits: 1 },
  { key: 'amount', label: 'Amount', unit: '0–2', least: 0, most: 2, digits: 2 },
  { key: 'threshold', label: 'Threshold', unit: '0–32', least: 0, most: 32, digits: 0 },
] as const;

/** Fields that choose whether pictures are sharpened before they are encoded, and how. */
export function SharpeningFields({ sharpening, onChange }: Props) {
  return (
    <View style={styles.group}>
      <Choice
        label="Sharpening"
        value={sharpening === null ? 'none' : 'own'}
        options={[
          { value: 'none', label: 'None' },
          { value: 'own', label: 'Sharpen' },
        ]}
        onChange={(value) => onChange(value === 'none' ? null : A_TOUCH)}
      />
      {sharpening && (
        <View style={styles.row}>
          {FIELDS.map(({ key, label, unit, least, most, digits }) => (
            <NumberField
              key={key}
              label={label}
              unit={unit}
              value={sharpening[key].toFixed(digits)}
              least={least}
              most={most}
              onTake={(value) =>
                onChange({ ...sharpening, [key]: key === 'threshold' ? Math.round(value) : value })
              }
            />
          ))}
        </View>
      )}
      {sharpening && <SharpeningLook />}
      <Soft>A touch of it helps a clip survive the outlet’s own compression. Words are never sharpened.</Soft>
    </View>
  );
}

const styles = StyleSheet.create({
  group: { gap: space.s, alignSelf: 'stretch' },
  row: { flexDirection: 'row', gap: space.l, flexWrap: 'wrap' },
});
