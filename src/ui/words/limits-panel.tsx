import { StyleSheet, View } from 'react-native';
import { LIMIT_SOURCES, type ReadingLimit, readingLimitsSchema } from '@core/words/reading-limits';
import { NumberField } from '../parts/number-field';
import { Soft } from '../parts/words';
import { space } from '../theme/tokens';
import type { CaptionTools } from './use-captions';

const LABELS: Record<ReadingLimit, { label: string; unit?: string; bounds: [number, number] }> = {
  characters: { label: 'Characters a line', bounds: [10, 80] },
  lines: { label: 'Lines', bounds: [1, 4] },
  speed: { label: 'Reading speed', unit: 'characters/s', bounds: [5, 40] },
  shortest: { label: 'Shortest', unit: 's', bounds: [0.2, 5] },
  longest: { label: 'Longest', unit: 's', bounds: [1, 20] },
  gap: { label: 'Least gap', unit: 's', bounds: [0, 2] },
};

/** Panel of the limits that captions are held to, with the source of each. */
export function LimitsPanel({ captions }: { captions: CaptionTools }) {
  const { limits } = captions.captions;
  return (
    <View style={styles.panel}>
      {(Object.keys(LABELS) as ReadingLimit[]).map((limit) => {
        const { label, unit, bounds } = LABELS[limit];
        return (
          <View key={limit} style={styles.row}>
            <View style={styles.field}>
              <NumberField
                label={label}
                {...(unit === undefined ? {} : { unit })}
                value={String(limits[limit])}
                least={bounds[0]}
                most={bounds[1]}
                onTake={(value) => {
                  const next = readingLimitsSchema.safeParse({ ...limits, [limit]: whole(limit, value) });
                  if (next.success) captions.setLook('limits', { limits: next.data });
                }}
              />
            </View>
            <Soft style={styles.source}>{LIMIT_SOURCES[limit]}</Soft>
          </View>
        );
      })}
    </View>
  );
}

const whole = (limit: ReadingLimit, value: number): number =>
  limit === 'characters' || limit === 'lines' ? Math.round(value) : value;

const styles = StyleSheet.create({
  panel: { gap: space.s },
  row: { flexDirection: 'row', gap: space.m, alignItems: 'center' },
  field: { width: 150 },
  source: { flex: 1 },
});
