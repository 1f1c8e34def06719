import { Button, Dialog, Portal } from 'react-native-paper';
import { deleteWholeJob } from '@state/delete-job';
import { GraveButton } from '../parts/grave-button';
import { Body } from '../parts/words';

/** Asks before a job is deleted. */
export function DeleteDialog({ id, title, onClose }: { id: string; title: string; onClose: () => void }) {
  return (
    <Portal>
      <Dialog visible onDismiss={onClose}>
        <Dialog.Title>Delete this job?</Dialog.Title>
        <Dialog.Content>
          <Body>{title}, its exports and its copies of masters leave this browser. Posts stay up.</Body>
        </Dialog.Content>
        <Dialog.Actions>
          <Button onPress={onClose}>Keep it</Button>
          <GraveButton onPress={() => void deleteWholeJob(id)}>Delete it</GraveButton>
        </Dialog.Actions>
      </Dialog>
    </Portal>
  );
}
