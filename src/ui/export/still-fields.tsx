import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { Button } from 'react-native-paper';
import { activeCanvas } from '@core/job/clip';
import { parseEntry } from '@core/time/timecode-entry';
import { formatTimecode } from '@core/time/timecode';
import { type Trouble, toTrouble } from '@core/trouble/trouble';
import { stillFile } from '@state/picture';
import { useClip, useJob } from '../job/job-context';
import { EntryField } from '../parts/entry-field';
import { TroubleNotice } from '../parts/notice';
import { saveFile } from '../parts/pick-file';
import { Soft } from '../parts/words';
import { space } from '../theme/tokens';
import { useNextName } from './name-fields';
import { useOutputFrame } from './use-output-frame';

/** Saves one frame of the canvas at hand as a picture in its own size. */
export function StillFields() {
  const job = useJob();
  const { rate } = activeCanvas(useClip());
  const here = useOutputFrame();
  const [chosen, setChosen] = useState<number | null>(null);
  const [saving, setSaving] = useState(false);
  const [trouble, setTrouble] = useState<Trouble | null>(null);
  const name = useNextName().replace(/\.\w+$/, '');
  const frame = chosen ?? here;
  const save = async (form: 'png' | 'jpg') => {
    setSaving(true);
    setTrouble(null);
    try {
      saveFile(await stillFile(job, frame, { form, name }));
    } catch (error) {
      setTrouble(toTrouble(error, 'export-failed', {}));
    }
    setSaving(false);
  };
  const take = (text: string): string | null => {
    const typed = parseEntry(text, { rate, from: frame });
    if (typed === null || typed < 0) return 'Type a time of the clip, such as 00:00:03:12.';
    setChosen(typed);
    return null;
  };
  return (
    <View style={styles.group}>
      <EntryField label="Frame at" value={formatTimecode(frame, rate)} onSubmit={take} />
      <View style={styles.actions}>
        {(['png', 'jpg'] as const).map((form) => (
          <Button key={form} mode="outlined" disabled={saving} onPress={() => void save(form)}>
            {form === 'png' ? 'Save PNG' : 'Save JPEG'}
          </Button>
        ))}
      </View>
      <Soft>
        {chosen === null
          ? 'The frame that the player stands at.'
          : 'The last frame is taken for a time past the end.'}
      </Soft>
      {trouble && <TroubleNotice trouble={trouble} />}
    </View>
  );
}

const styles = StyleSheet.create({
  group: { gap: space.s, alignSelf: 'stretch' },
  actions: { flexDirection: 'row', gap: space.s },
});
