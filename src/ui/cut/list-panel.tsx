import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { Button } from 'react-native-paper';
import type { ListNote } from '@core/interchange/cut-list';
import { listFile, type ListUse, type OpenList, openList, shotListFile, takeList } from '@state/cut';
import { useJob, useSource } from '../job/job-context';
import { Notice } from '../parts/notice';
import { pickList, saveFile } from '../parts/pick-file';
import { Body, Heading, Soft } from '../parts/words';
import { card, space } from '../theme/tokens';

/** Notes that are shown at once; a long list of the same trouble helps nobody. */
const MAX_NOTES = 12;

/** Cut lists in open forms: taken as shots or as the cut, and written. */
export function ListPanel() {
  const job = useJob();
  const source = useSource();
  const [open, setOpen] = useState<OpenList | null>(null);
  const [notes, setNotes] = useState<{ title: string; list: ListNote[] } | null>(null);
  const pick = async () => {
    const file = await pickList();
    if (!file) return;
    const read = await openList(file, source);
    const unusable = read.list.events.length === 0;
    setOpen(unusable ? null : read);
    setNotes(unusable ? { title: `${file.name} could not be read.`, list: read.list.notes } : null);
  };
  const take = (use: ListUse) => {
    if (!open) return;
    const left = takeList(job, source, open, use);
    setOpen(null);
    setNotes({ title: use === 'shots' ? 'The shots are taken.' : 'The cut is taken.', list: left });
  };
  return (
    <View style={styles.panel}>
      <Heading>Cut lists</Heading>
      <Soft>OpenTimelineIO (.otio) and CMX 3600 (.edl), read at the master&apos;s rate.</Soft>
      <Button mode="outlined" icon="file-outline" onPress={() => void pick()}>
        Open a cut list
      </Button>
      {open && (
        <View style={styles.card}>
          <Body>
            {`${open.fileName}: ${open.list.events.length} events` +
              (open.list.notes.length > 0 ? `, ${open.list.notes.length} notes` : '')}
          </Body>
          <Soft>
            Were these edits exported to this one master, or do they name the masters&apos; own frames?
          </Soft>
          <Button mode="contained" onPress={() => take('shots')}>
            Take it as shots of this master
          </Button>
          <Button mode="contained" onPress={() => take('cut')}>
            Take it as the cut
          </Button>
          <Button onPress={() => setOpen(null)}>Leave it</Button>
        </View>
      )}
      {notes && <Notes title={notes.title} notes={notes.list} />}
      <Heading>Save</Heading>
      <View style={styles.row}>
        <Button mode="outlined" onPress={() => saveFile(listFile(job, 'otio'))}>
          Cut as .otio
        </Button>
        <Button mode="outlined" onPress={() => saveFile(listFile(job, 'edl'))}>
          Cut as .edl
        </Button>
        <Button mode="outlined" onPress={() => saveFile(shotListFile(job, source, 'otio'))}>
          Shots as .otio
        </Button>
        <Button mode="outlined" onPress={() => saveFile(shotListFile(job, source, 'edl'))}>
          Shots as .edl
        </Button>
      </View>
    </View>
  );
}

function Notes({ title, notes }: { title: string; notes: readonly ListNote[] }) {
  return (
    <Notice standing={notes.length > 0 ? 'warn' : 'pass'} title={title}>
      <View>
        {notes.slice(0, MAX_NOTES).map(({ line, reason }, i) => (
          <Body key={`${line}-${i}`}>{`Line ${line} ${reason}.`}</Body>
        ))}
        {notes.length > MAX_NOTES && <Soft>{`And ${notes.length - MAX_NOTES} more.`}</Soft>}
        {notes.length === 0 && <Body>Everything in it could be used.</Body>}
      </View>
    </Notice>
  );
}

const styles = StyleSheet.create({
  panel: { gap: space.s },
  card: { gap: space.s, padding: space.m, ...card },
  row: { flexDirection: 'row', flexWrap: 'wrap', gap: space.s },
});
