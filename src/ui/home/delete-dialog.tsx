import { Button, Dialog } from 'react-native-paper';
import { isUnfinished } from '@core/job/records';
import { deleteWholeJob } from '@state/files';
import { useJobs } from '@state/job';
import { DestructiveButton } from '../parts/destructive-button';
import { ModalDialog } from '../parts/modal-dialog';
import { Body } from '../parts/words';

/** Asks before a job is deleted. */
export function DeleteDialog({ id, title, onClose }: { id: string; title: string; onClose: () => void }) {
  // Also those that another tab makes.
  const open = useJobs((state) => state.listed[id]?.exports.filter(isUnfinished).length ?? 0);
  return (
    <ModalDialog title="Delete this job?" onClose={onClose}>
      <Dialog.Content>
        <Body>{title}, its exports and its copies of masters leave this browser. Posts stay up.</Body>
        {open > 0 && (
          <Body>
            {open === 1
              ? 'An export of it is being made, and stops.'
              : `${open} exports of it are being made, and stop.`}
          </Body>
        )}
      </Dialog.Content>
      <Dialog.Actions>
        <Button onPress={onClose}>Keep it</Button>
        <DestructiveButton onPress={() => void deleteWholeJob(id)}>Delete it</DestructiveButton>
      </Dialog.Actions>
    </ModalDialog>
  );
}
