import { StyleSheet, View } from 'react-native';
import { Button } from 'react-native-paper';
import { useOffline } from '@state/app';
import { useSettingTroubles } from '@state/store';
import { Notice, TroubleNotice } from './parts/notice';
import { saveFile } from './parts/pick-file';
import { colours, space } from './theme/tokens';

/** Notices over every page when something is wrong with the app itself. */
export function AppNotices() {
  const isReplaced = useOffline((state) => state.replaced);
  const troubles = useSettingTroubles();
  const [unstored, unread] = [Object.entries(troubles.unstored), Object.entries(troubles.unread)];
  if (!isReplaced && unstored.length + unread.length === 0) return null;
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
      {unread.map(([name, { label, text, forget }]) => (
        <TroubleNotice
          key={`${name} unread`}
          trouble={{ code: 'setting-unread', values: { what: label } }}
          actions={
            <>
              <Button
                mode="contained"
                onPress={() => saveFile(new File([text], `gusset-${name}.txt`, { type: 'text/plain' }))}
              >
                Save their text
              </Button>
              <Button onPress={() => void forget()}>Go on without them</Button>
            </>
          }
        />
      ))}
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
