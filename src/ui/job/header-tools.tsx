import { useRouter } from 'expo-router';
import { useState } from 'react';
import { StyleSheet, useWindowDimensions, View } from 'react-native';
import { stepLabel } from '@core/job/commands/commands';
import type { HistoryStep } from '@core/job/history';
import { redo, undo, useJobs } from '@state/job';
import { Tool } from '../parts/tool';
import { useKeys } from '../parts/use-keys';
import { WIDE } from '../theme/tokens';
import { useJob } from './job-context';
import { KeyList } from './key-list';

/** The way back from a page of a job: to its sheet, or from the sheet to the list. */
export function BackTool({ to }: { to: 'list' | 'sheet' }) {
  const router = useRouter();
  const { id } = useJob();
  const label = to === 'list' ? 'All jobs' : 'Job sheet';
  return (
    <Tool
      icon="arrow-left"
      label={label}
      words=""
      onPress={() => router.dismissTo(to === 'list' ? '/' : `/job/${id}`)}
    />
  );
}

/** Says what the next of some steps did. */
function toLabel(steps: readonly HistoryStep[] | undefined): string | null {
  const step = steps?.[steps.length - 1];
  return step ? stepLabel(step.command) : null;
}

/** Undo, redo and the list of keys. */
export function HistoryTools() {
  const { id } = useJob();
  const history = useJobs((state) => state.files[id]?.history);
  const [listing, setListing] = useState(false);
  // A phone has no keys to list.
  const wide = useWindowDimensions().width >= WIDE;
  const back = toLabel(history?.past);
  const forth = toLabel(history?.future);
  const [keys] = useState(() => ({
    'Ctrl+z': () => undo(id),
    'Ctrl+Shift+z': () => redo(id),
    '?': () => setListing(true),
  }));
  useKeys(keys);
  return (
    <View style={styles.row}>
      <Tool
        icon="undo"
        label={back ? `Undo: ${back}` : 'Undo'}
        words=""
        disabled={!back}
        hotkey="Ctrl+Z"
        onPress={() => undo(id)}
      />
      <Tool
        icon="redo"
        label={forth ? `Redo: ${forth}` : 'Redo'}
        words=""
        disabled={!forth}
        hotkey="Ctrl+Shift+Z"
        onPress={() => redo(id)}
      />
      {wide && (
        <Tool icon="keyboard-outline" label="Keys" words="" hotkey="?" onPress={() => setListing(true)} />
      )}
      {listing && <KeyList onClose={() => setListing(false)} />}
    </View>
  );
}

const styles = StyleSheet.create({ row: { flexDirection: 'row' } });
