import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { Button } from 'react-native-paper';
import { formatCount } from '@core/figures/figures';
import type { Trouble } from '@core/trouble/trouble';
import { type CaptionNote, noteWords } from '@core/words/files/caption-note';
import { toFileCues, type TimedTo, toWrittenCues } from '@core/words/cue-list';
import { CAPTION_FORMS } from '@core/words/files/write-captions';
import { captionsFile, captionsName, type OpenCaptions, openCaptions } from '@state/words';
import { mainMaster } from '@core/job/job';
import { useJob } from '../job/job-context';
import { Notice, TroubleNotice } from '../parts/notice';
import { pickCaptions, saveFile } from '../parts/pick-file';
import { Body, Soft } from '../parts/words';
import { card, space } from '../theme/tokens';
import { ScriptForm } from './script-form';
import type { CaptionTools } from './use-captions';

/** Notes that are shown before the rest is asked for. */
const FIRST_NOTES = 8;

type ReadCaptions = Extract<OpenCaptions, { file: unknown }>;

/** Captions from files and from scripts. */
export function BringPanel({ captions }: { captions: CaptionTools }) {
  const job = useJob();
  const [open, setOpen] = useState<ReadCaptions | null>(null);
  const [trouble, setTrouble] = useState<Trouble | null>(null);
  const [told, setTold] = useState<{ title: string; notes: CaptionNote[] } | null>(null);
  const { timeline, listed } = captions;
  const pick = async () => {
    const file = await pickCaptions();
    if (!file) return;
    const read = await openCaptions(file);
    setTold(null);
    setTrouble('trouble' in read ? read.trouble : null);
    setOpen('file' in read ? read : null);
  };
  const take = (timedTo: TimedTo) => {
    if (!open) return;
    const { cues, outside } = toFileCues(open.file.cues, timedTo, timeline);
    const notes = [
      ...open.file.notes,
      ...open.file.cues.flatMap((cue) => cue.notes),
      ...outside.map(({ line, text }): CaptionNote => ({ code: 'beyond', line, detail: text.slice(0, 40) })),
    ].sort((a, b) => a.line - b.line);
    if (cues.length > 0) captions.setCues('read', cues);
    setTold({
      title: `${formatCount(cues.length, 'caption', 'captions')} of ${open.fileName} taken`,
      notes,
    });
    setOpen(null);
  };
  const master = mainMaster(job);
  return (
    <View style={styles.panel}>
      {trouble && <TroubleNotice trouble={trouble} />}
      {open && (
        <View style={styles.card}>
          <Body>{`${open.fileName}: ${formatCount(open.file.cues.length, 'caption', 'captions')}. What are its times counted from?`}</Body>
          {listed.length > 0 && <Soft>They take the place of the captions that are there.</Soft>}
          <View style={styles.row}>
            <Button mode="contained" onPress={() => take({ kind: 'clip' })}>
              The start of this clip
            </Button>
            <Button
              mode="outlined"
              onPress={() =>
                take({ kind: 'master', master: master.id, frames: timeline.masters(master.id).frames })
              }
            >
              The start of the master
            </Button>
            <Button mode="text" onPress={() => setOpen(null)}>
              Leave it
            </Button>
          </View>
        </View>
      )}
      {told && <Notes title={told.title} notes={told.notes} onClose={() => setTold(null)} />}
      <View style={styles.row}>
        <Button mode="outlined" icon="file-outline" onPress={() => void pick()}>
          Open .srt or .vtt
        </Button>
        {CAPTION_FORMS.map((form) => (
          <Button
            key={form}
            mode="text"
            icon="download-outline"
            disabled={!listed.some(({ at }) => at !== null)}
            onPress={() =>
              saveFile(captionsFile(toWrittenCues(captions.captions.cues, timeline), form, captionsName(job)))
            }
          >
            {`Save .${form}`}
          </Button>
        ))}
      </View>
      <ScriptForm captions={captions} />
    </View>
  );
}

/** Notes on what was mended and what was left out, cue by cue. */
function Notes({
  title,
  notes,
  onClose,
}: {
  title: string;
  notes: readonly CaptionNote[];
  onClose: () => void;
}) {
  const [all, setAll] = useState(false);
  const shown = all ? notes : notes.slice(0, FIRST_NOTES);
  return (
    <Notice
      standing={notes.length > 0 ? 'warn' : 'pass'}
      title={title}
      actions={
        <>
          {shown.length < notes.length && (
            <Button onPress={() => setAll(true)}>{`And ${notes.length - shown.length} more`}</Button>
          )}
          <Button onPress={onClose}>Close</Button>
        </>
      }
    >
      <View>
        {shown.map((note, i) => (
          <Body key={i}>{`Line ${note.line}: ${noteWords(note)}`}</Body>
        ))}
        {notes.length === 0 && <Body>Nothing in it had to be mended.</Body>}
      </View>
    </Notice>
  );
}

const styles = StyleSheet.create({
  panel: { gap: space.s },
  card: { gap: space.s, padding: space.m, ...card },
  row: { flexDirection: 'row', flexWrap: 'wrap', gap: space.s },
});
