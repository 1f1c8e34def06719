import { useState } from 'react';
import { Menu } from 'react-native-paper';
import { copyJob, jobAsArchive, jobAsFile } from '@state/job-files';
import type { Listed } from '@state/listed';
import { saveFile } from '../parts/pick-file';
import { Tool } from '../parts/tool';
import { colours } from '../theme/tokens';
import { DeleteDialog } from './delete-dialog';
import { KeepDialog } from './keep-dialog';
import { RenameDialog } from './rename-dialog';

type Asking = 'menu' | 'rename' | 'keep' | 'delete' | null;

/** What can be done with a job in the list. */
export function JobMenu({ listed }: { listed: Listed }) {
  const { id, title } = listed.head;
  const [asking, setAsking] = useState<Asking>(null);
  const close = () => setAsking(null);
  const save = async (coming: Promise<File | null>) => {
    close();
    const file = await coming;
    if (file) saveFile(file);
  };
  return (
    <>
      <Menu
        visible={asking === 'menu'}
        onDismiss={close}
        anchorPosition="bottom"
        anchor={
          <Tool
            icon="dots-horizontal"
            label={`More for ${title}`}
            words=""
            onPress={() => setAsking('menu')}
          />
        }
      >
        <Menu.Item leadingIcon="pencil-outline" title="Rename" onPress={() => setAsking('rename')} />
        <Menu.Item
          leadingIcon="content-duplicate"
          title="Make a copy"
          onPress={() => {
            close();
            void copyJob(id);
          }}
        />
        <Menu.Item
          leadingIcon="file-download-outline"
          title="Save as a file"
          onPress={() => void save(jobAsFile(id))}
        />
        <Menu.Item
          leadingIcon="archive-arrow-down-outline"
          title="Save with its masters"
          onPress={() => void save(jobAsArchive(id))}
        />
        <Menu.Item leadingIcon="database-outline" title="What it keeps" onPress={() => setAsking('keep')} />
        <Menu.Item
          leadingIcon="trash-can-outline"
          title="Delete"
          titleStyle={{ color: colours.madder }}
          onPress={() => setAsking('delete')}
        />
      </Menu>
      {asking === 'rename' && <RenameDialog id={id} title={title} onClose={close} />}
      {asking === 'keep' && <KeepDialog listed={listed} onClose={close} />}
      {asking === 'delete' && <DeleteDialog id={id} title={title} onClose={close} />}
    </>
  );
}
