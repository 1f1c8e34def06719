import { useLocalSearchParams, useRouter } from 'expo-router';
import { useEffect, useRef, useState } from 'react';
import { StyleSheet } from 'react-native';
import { Button } from 'react-native-paper';
import { SHARED_QUERY } from '@core/interchange/share-target';
import { takeNewer, takeSharedFiles, useOffline } from '@state/app';
import { Notice } from '../parts/notice';
import { Soft } from '../parts/words';

/** A newer version that waits, where one does. */
export function NewerNotice() {
  const newer = useOffline((state) => state.newer);
  if (!newer) return null;
  return (
    <Notice
      standing="note"
      title="A newer Gusset is ready"
      actions={
        <Button mode="contained" onPress={() => takeNewer(newer)}>
          Reload with it
        </Button>
      }
    >
      Your jobs stay as they are. An export that is being made goes on after the reload.
    </Notice>
  );
}

/** Card that tells whether the app is kept on this device, with the way to install it. */
export function OnThisDevice() {
  const { kept, install } = useOffline();
  return (
    <>
      {install && (
        <Button style={styles.left} icon="cellphone-arrow-down" onPress={() => void install()}>
          Install Gusset on this device
        </Button>
      )}
      {kept && <Soft>The app is kept on this device: it opens without a connection too.</Soft>}
    </>
  );
}

/** Takes the videos in that another app shared. @returns whether they could not be taken. */
export function useShared(take: (files: readonly File[]) => Promise<unknown>): boolean {
  const router = useRouter();
  const { [SHARED_QUERY]: shared } = useLocalSearchParams<{ [SHARED_QUERY]?: string }>();
  const [lost, setLost] = useState(false);
  const latest = useRef(take);
  latest.current = take;
  useEffect(() => {
    if (shared === undefined) return;
    router.setParams({ [SHARED_QUERY]: undefined });
    void takeSharedFiles((files) => latest.current(files)).then(
      (count) => setLost(count === 0),
      () => setLost(true),
    );
  }, [shared, router]);
  return lost;
}

const styles = StyleSheet.create({ left: { alignSelf: 'flex-start' } });
