import { useLocalSearchParams, useRouter } from 'expo-router';
import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { Button } from 'react-native-paper';
import { sheetChanges } from '@core/outlets/compare';
import type { RuleSheet } from '@core/outlets/rule-sheet';
import { isShipped, keepSheet, sheetVersions, useSheets } from '@state/job';
import { Choice } from '../parts/choice';
import { Screen } from '../parts/screen';
import { Soft } from '../parts/words';
import { space } from '../theme/tokens';
import { ValueChanges } from './review';
import { Back } from './rule-sheet-screen';

/** Two versions of a sheet beside each other, and the way back to an older one. */
export function VersionsScreen() {
  const { outlet = '' } = useLocalSearchParams<{ outlet: string }>();
  const router = useRouter();
  const { shelf } = useSheets();
  const versions = sheetVersions(shelf, outlet);
  const last = versions.length - 1;
  const [from, setFrom] = useState(Math.max(0, last - 1));
  const [to, setTo] = useState(last);
  const [before, after] = [versions[from], versions[to]];
  const toName = ({ date }: RuleSheet, i: number) =>
    i === 0 && isShipped(outlet) ? 'As it ships' : `${i + 1}: ${date}`;
  const options = versions.map((version, i) => ({ value: String(i), label: toName(version, i) }));
  const use = (sheet: RuleSheet) => keepSheet(sheet).then(() => router.dismissTo('/rules'));
  return (
    <Screen
      title={`Versions of ${after?.name ?? outlet}`}
      subtitle="The newest is in use"
      leading={<Back />}
      tray={
        before && (
          <Button mode="contained" contentStyle={styles.act} onPress={() => void use(before)}>
            {from === 0 && isShipped(outlet)
              ? 'Go back to the one that ships'
              : `Go back to version ${from + 1}`}
          </Button>
        )
      }
    >
      <View style={styles.group}>
        <Soft>From</Soft>
        <Choice
          label="From version"
          value={String(from)}
          options={options}
          onChange={(i) => setFrom(Number(i))}
        />
        <Soft>To</Soft>
        <Choice label="To version" value={String(to)} options={options} onChange={(i) => setTo(Number(i))} />
      </View>
      {before && after && <ValueChanges changes={sheetChanges(before, after)} />}
    </Screen>
  );
}

const styles = StyleSheet.create({ act: { minHeight: 52 }, group: { gap: space.xs } });
