import { StyleSheet, View } from 'react-native';
import { Button } from 'react-native-paper';
import { useOffline } from '@state/offline';
import { useUnstored } from '@state/store/shared-setting';
import { Notice, TroubleNotice } from './parts/notice';
import { colours, space } from './theme/tokens';

/** What stands over every page when something is wrong with the app itself. */
export function AppNotices() {
  const isReplaced = useOffline((state) => state.replaced);
  const unstored = Object.entries(useUnstored());
  if (!isReplaced && unstored.length === 0) return null;
  return (
    <View style={styles.notices}>
      {isReplaced && (
        <Notice
          standing="warn"
          title="Another tab went on with a newer Gusset"
          actions={
            <Button mode="contained" onPress={() => location.reload()}>
              Reload
            </Button>
          }
        >
          Reload this page before you go on: pages that it has not opened yet cannot be loaded. Your jobs are
          kept.
        </Notice>
      )}
      {unstored.map(([name, { trouble, tryAgain }]) => (
        <TroubleNotice
          key={name}
          trouble={trouble}
          actions={
            <Button mode="contained" onPress={() => void tryAgain()}>
              Try again
            </Button>
          }
        />
      ))}
    </View>
  );
}

const styles = StyleSheet.create({
  notices: { gap: space.s, padding: space.m, backgroundColor: colours.paper },
});
