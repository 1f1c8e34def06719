import { useRouter } from 'expo-router';
import { StyleSheet } from 'react-native';
import { Button } from 'react-native-paper';
import { useJob } from '../job/job-context';

/** Leads to the canvas alone, and from there back to this page. */
export function SeeWhole({ from }: { from: 'frame' | 'check' | 'export' }) {
  const router = useRouter();
  const { id } = useJob();
  return (
    <Button
      mode="outlined"
      icon="fullscreen"
      style={styles.left}
      onPress={() => router.replace(`/job/${id}/whole?from=${from}`)}
    >
      See it whole
    </Button>
  );
}

const styles = StyleSheet.create({ left: { alignSelf: 'flex-start' } });
