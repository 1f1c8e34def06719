import { StyleSheet } from 'react-native';
import { Button, TextInput } from 'react-native-paper';
import { leadWithKeyPhrase, hasLeadingKeyPhrase, withKeyPhrase } from '@core/job/key-phrase';
import { dispatch } from '@state/job';
import { useClip, useJob } from '../job/job-context';
import { Soft } from '../parts/words';

/** Field for the words that people will search for, with whether a title leads with them. */
export function KeyPhrase({ title, onLead }: { title: string; onLead: (title: string) => void }) {
  const { id } = useJob();
  const { words } = useClip();
  const { keyPhrase = '' } = words;
  const isSaid = keyPhrase.trim() !== '';
  return (
    <>
      <TextInput
        mode="outlined"
        dense
        label="Key phrase"
        aria-label="Key phrase"
        maxLength={100}
        value={keyPhrase}
        onChangeText={(text) =>
          dispatch(id, { type: 'set-words', words: withKeyPhrase(words, text) }, 'key phrase')
        }
      />
      {!isSaid && <Soft>The words people will search for. They belong at the start of the title.</Soft>}
      {isSaid && hasLeadingKeyPhrase(title, keyPhrase) && <Soft>The title leads with it.</Soft>}
      {isSaid && !hasLeadingKeyPhrase(title, keyPhrase) && (
        <Button
          mode="outlined"
          style={styles.left}
          onPress={() => onLead(leadWithKeyPhrase(title, keyPhrase))}
        >
          Put it first in the title
        </Button>
      )}
    </>
  );
}

const styles = StyleSheet.create({ left: { alignSelf: 'flex-start' } });
