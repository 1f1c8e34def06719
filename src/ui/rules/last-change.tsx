import { StyleSheet, View } from 'react-native';
import { Button } from 'react-native-paper';
import { forgetLastChange, useSheets } from '@state/job';
import { Heading } from '../parts/words';
import { card, space } from '../theme/tokens';
import { Effects } from './effects';

/** Notice of what the last change of a rule sheet did to the clips of every job, until the person closes it. */
export function LastChange() {
  const { last, sheets } = useSheets();
  if (!last) return null;
  const { outlet, name, before } = last;
  const sheet = sheets.find((sheet) => sheet.outlet === outlet) ?? null;
  return (
    <View role="region" aria-label="What the last change did" style={styles.card}>
      <Heading>{sheet ? `The rules of ${name} were changed` : `${name} is out of use`}</Heading>
      <Effects sheets={before} outlet={outlet} sheet={sheet} />
      <Button style={styles.left} onPress={forgetLastChange}>
        Close this list
      </Button>
    </View>
  );
}

const styles = StyleSheet.create({
  card: { padding: space.m, gap: space.s, ...card },
  left: { alignSelf: 'flex-start' },
});
