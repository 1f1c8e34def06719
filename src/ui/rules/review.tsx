import { StyleSheet, View } from 'react-native';
import { type ValueChange, sheetChanges } from '@core/outlets/compare';
import type { RuleSheet } from '@core/outlets/rule-sheet';
import { useRuleSheets } from '../job/use-target';
import { Body, Figures, Heading, Soft, Strong } from '../parts/words';
import { card, space } from '../theme/tokens';
import { Effects } from './effects';

/** Review of a sheet's changes before it is kept: its values one by one, and the effect on the clips. */
export function Review({ after }: { after: RuleSheet }) {
  const sheets = useRuleSheets();
  const before = sheets.find((sheet) => sheet.outlet === after.outlet) ?? null;
  return (
    <View style={styles.group}>
      {before ? (
        <ValueChanges changes={sheetChanges(before, after)} />
      ) : (
        <Body>{`${after.name} is new here: ${after.placements.map(({ name }) => name).join(', ')}.`}</Body>
      )}
      <Heading>What becomes of your clips</Heading>
      <Effects sheets={sheets} outlet={after.outlet} sheet={after} />
    </View>
  );
}

/** Values of two versions, beside each other. */
export function ValueChanges({ changes }: { changes: readonly ValueChange[] }) {
  if (changes.length === 0) return <Body>Both are the same, value for value.</Body>;
  return (
    <View role="list" aria-label="Changed values" style={styles.group}>
      <Heading>{`Changed values: ${changes.length}`}</Heading>
      {changes.map(({ place, before, after }) => (
        <View
          key={place}
          role="listitem"
          aria-label={`${place}: ${before}, now ${after}`}
          style={styles.change}
        >
          <Strong>{place}</Strong>
          <Figures>{after}</Figures>
          <Soft>{`Before: ${before}`}</Soft>
        </View>
      ))}
    </View>
  );
}

const styles = StyleSheet.create({
  group: { gap: space.s },
  change: { padding: space.s, ...card },
});
