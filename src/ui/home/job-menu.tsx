import { useState } from 'react';
import { StyleSheet } from 'react-native';
import { Button, Dialog } from 'react-native-paper';
import { copyJob, createJobArchive, createJobFile } from '@state/files';
import type { JobListEntry } from '@state/job-list-entry';
import { DestructiveButton } from '../parts/destructive-button';
import { ModalDialog } from '../parts/modal-dialog';
import { saveFile } from '../parts/pick-file';
import { Tool } from '../parts/tool';
import { TARGET } from '../theme/tokens';
import { DeleteDialog } from './delete-dialog';
import { KeepDialog } from './keep-dialog';
import { RenameDialog } from './rename-dialog';

type OpenDialog = 'menu' | 'rename' | 'keep' | 'delete' | null;

/** Menu of a job in the list. */
export function JobMenu({ listed }: { listed: JobListEntry }) {
  const { id, title } = listed.head;
  const [asking, setAsking] = useState<OpenDialog>(null);
  const close = () => setAsking(null);
  const save = async (coming: Promise<File | null>) => {
    close();
    const file = await coming;
    if (file) saveFile(file);
  };
  const acts = [
    { icon: 'pencil-outline', words: 'Rename', act: () => setAsking('rename') },
    {
      icon: 'content-duplicate',
      words: 'Make a copy',
      act: () => {
        close();
        void copyJob(id);
      },
    },
    { icon: 'file-download-outline', words: 'Save as a file', act: () => void save(createJobFile(id)) },
    {
      icon: 'archive-arrow-down-outline',
      words: 'Save with its masters',
      act: () => void save(createJobArchive(id)),
    },
    { icon: 'database-outline', words: 'Stored files', act: () => setAsking('keep') },
  ];
  return (
    <>
      <Tool icon="dots-horizontal" label={`More for ${title}`} words="" onPress={() => setAsking('menu')} />
      {asking === 'menu' && (
        <ModalDialog title={title} onClose={close}>
          <Dialog.Content>
            {acts.map(({ icon, words, act }) => (
              <Button key={words} icon={icon} contentStyle={styles.act} onPress={act}>
                {words}
              </Button>
            ))}
            <DestructiveButton
              icon="trash-can-outline"
              contentStyle={styles.act}
              onPress={() => setAsking('delete')}
            >
              Delete
            </DestructiveButton>
          </Dialog.Content>
        </ModalDialog>
      )}
      {asking === 'rename' && <RenameDialog id={id} title={title} onClose={close} />}
      {asking === 'keep' && <KeepDialog listed={listed} onClose={close} />}
      {asking === 'delete' && <DeleteDialog id={id} title={title} onClose={close} />}
    </>
  );
}

const styles = StyleSheet.create({ act: { minHeight: TARGET, justifyContent: 'flex-start' } });
