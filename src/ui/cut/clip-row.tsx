import { useState } from 'react';
import { Pressable, ScrollView, StyleSheet, View } from 'react-native';
import { Button, Dialog, TextInput } from 'react-native-paper';
import { clipName } from '@core/job/clip';
import { lengthLabel } from '@core/time/timecode';
import { addClip, chooseClip, clipSeconds, removeClip, renameClip } from '@state/cut';
import { useClip, useJob } from '../job/job-context';
import { DestructiveButton } from '../parts/destructive-button';
import { Tool } from '../parts/tool';
import { ModalDialog } from '../parts/modal-dialog';
import { Body, Soft, Strong } from '../parts/words';
import { card, colours, space, TARGET } from '../theme/tokens';

/** The job's clips, each with its own cut; the one that is worked on stands out. */
export function ClipRow() {
  const job = useJob();
  const current = useClip();
  const [editing, setEditing] = useState(false);
  return (
    <View style={styles.row}>
      <ScrollView horizontal showsHorizontalScrollIndicator={false} contentContainerStyle={styles.chips}>
        {job.edit.clips.map((clip) => {
          const on = clip.id === current.id;
          const name = clipName(clip);
          return (
            <Pressable
              key={clip.id}
              role="button"
              aria-label={`Clip ${name} ${lengthLabel(clipSeconds(job, clip))}`}
              aria-pressed={on}
              onPress={() => chooseClip(job, clip.id)}
              style={[styles.chip, on && styles.on]}
            >
              <Strong numberOfLines={1} style={styles.name}>
                {`${name} `}
              </Strong>
              <Soft>{lengthLabel(clipSeconds(job, clip))}</Soft>
            </Pressable>
          );
        })}
      </ScrollView>
      <Tool
        icon="pencil-outline"
        label="Name or remove this clip"
        words=""
        onPress={() => setEditing(true)}
      />
      <Tool icon="plus" label="New clip" words="" onPress={() => addClip(job)} />
      {editing && <ClipDialog onDismiss={() => setEditing(false)} />}
    </View>
  );
}

function ClipDialog({ onDismiss }: { onDismiss: () => void }) {
  const job = useJob();
  const clip = useClip();
  const [name, setName] = useState(clip.name);
  const made = job.exports.filter((record) => record.clip === clip.id).length;
  const rename = () => {
    if (name.trim() !== '' && name.trim() !== clip.name) renameClip(job, clip.id, name.trim());
    onDismiss();
  };
  return (
    <ModalDialog title="This clip" onClose={onDismiss}>
      <Dialog.Content style={styles.dialog}>
        <TextInput mode="outlined" label="Name" aria-label="Name" value={name} onChangeText={setName} />
        {job.edit.clips.length === 1 && (
          <Body>This is the only clip in the job, so it cannot be removed.</Body>
        )}
        {made > 0 && <Soft>{made} exports were made of it. Removing can be undone.</Soft>}
      </Dialog.Content>
      <Dialog.Actions>
        <DestructiveButton
          disabled={job.edit.clips.length === 1}
          onPress={() => {
            removeClip(job, clip.id);
            onDismiss();
          }}
        >
          Remove
        </DestructiveButton>
        <Button onPress={onDismiss}>Cancel</Button>
        <Button mode="contained" onPress={rename}>
          Rename
        </Button>
      </Dialog.Actions>
    </ModalDialog>
  );
}

const styles = StyleSheet.create({
  row: { flexDirection: 'row', alignItems: 'center', gap: space.xs },
  chips: { gap: space.s },
  chip: { minHeight: TARGET, paddingHorizontal: space.m, justifyContent: 'center', ...card },
  on: { borderColor: colours.woad, borderWidth: 2, backgroundColor: colours.woadWash },
  name: { maxWidth: 190 },
  dialog: { gap: space.m },
});
