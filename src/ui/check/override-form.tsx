import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { Button, TextInput } from 'react-native-paper';
import { DestructiveButton } from '../parts/destructive-button';
import { Soft } from '../parts/words';
import { space } from '../theme/tokens';

interface Props {
  /** Of the rule. */
  name: string;
  onOverride: (reason: string) => void;
}

/** Lets a stop pass on the canvas being worked on: by its name, and with a reason that is kept. */
export function OverrideForm({ name, onOverride }: Props) {
  const [reason, setReason] = useState<string | null>(null);
  if (reason === null) {
    return (
      <DestructiveButton style={styles.left} onPress={() => setReason('')}>
        {`Override “${name}”…`}
      </DestructiveButton>
    );
  }
  const given = reason.trim();
  return (
    <View style={styles.form}>
      <TextInput
        mode="outlined"
        label={`Why “${name}” may pass`}
        aria-label={`Why “${name}” may pass`}
        autoFocus
        value={reason}
        onChangeText={setReason}
        onSubmitEditing={() => given && onOverride(given)}
      />
      <Soft>Counts for this canvas alone, and is kept with the clip.</Soft>
      <View style={styles.row}>
        <DestructiveButton mode="outlined" disabled={!given} onPress={() => onOverride(given)}>
          {`Override “${name}”`}
        </DestructiveButton>
        <Button onPress={() => setReason(null)}>Cancel</Button>
      </View>
    </View>
  );
}

const styles = StyleSheet.create({
  left: { alignSelf: 'flex-start' },
  form: { gap: space.s, marginTop: space.s },
  row: { flexDirection: 'row', flexWrap: 'wrap', gap: space.s },
});
