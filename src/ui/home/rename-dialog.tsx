import { useState } from 'react';
import { Button, Dialog, TextInput } from 'react-native-paper';
import { leaveJob, openJob, renameJob, useJobs } from '@state/job';
import { ModalDialog } from '../parts/modal-dialog';
import { Body } from '../parts/words';

/** Asks for another name of a job. */
export function RenameDialog({ id, title, onClose }: { id: string; title: string; onClose: () => void }) {
  const [name, setName] = useState(title);
  const [elsewhere, setElsewhere] = useState(false);
  const given = name.trim();
  const rename = async () => {
    await openJob(id);
    const watched = useJobs.getState().watched[id] === true;
    if (!watched) renameJob(id, given);
    // The list works on no job: any tab may go on with it.
    await leaveJob(id);
    if (watched) setElsewhere(true);
    else onClose();
  };
  return (
    <ModalDialog title="Rename this job" onClose={onClose}>
      <Dialog.Content>
        <TextInput
          mode="outlined"
          label="Name of the job"
          aria-label="Name of the job"
          autoFocus
          value={name}
          onChangeText={setName}
          onSubmitEditing={() => given && void rename()}
        />
        {elsewhere && <Body>Another tab works on it. Rename it there, or close it there first.</Body>}
      </Dialog.Content>
      <Dialog.Actions>
        <Button onPress={onClose}>Cancel</Button>
        <Button mode="contained" disabled={!given} onPress={() => void rename()}>
          Rename
        </Button>
      </Dialog.Actions>
    </ModalDialog>
  );
}
