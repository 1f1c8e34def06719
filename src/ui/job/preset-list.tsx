import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { Button, TextInput } from 'react-native-paper';
import { presetAdded } from '@core/job/canvases';
import { activeCanvas } from '@core/job/clip';
import { rateLabel } from '@core/time/frame-rate';
import { dispatch } from '@state/jobs';
import { dropPreset, presetFile, savePreset, takePresetFile, usePresets } from '@state/presets';
import { pickPresets, saveFile } from '../parts/pick-file';
import { Tool } from '../parts/tool';
import { Refusal } from '../parts/refusal';
import { Heading, Soft, Strong } from '../parts/words';
import { card, space } from '../theme/tokens';
import { useClip, useJob } from './job-context';

/** Canvases under names, to be made again in any job, and as a file. */
export function PresetList() {
  const { id } = useJob();
  const clip = useClip();
  const presets = usePresets((state) => state.presets);
  const [name, setName] = useState('');
  const [problem, setProblem] = useState<string | null>(null);
  const keep = () => {
    if (name.trim() === '') return setProblem('Give the preset a name first.');
    setProblem(null);
    savePreset(name.trim(), activeCanvas(clip));
    setName('');
  };
  const open = async () => {
    const file = await pickPresets();
    if (!file) return;
    const wrong = await takePresetFile(file);
    setProblem(
      wrong === null
        ? null
        : `${file.name} holds no presets that can be used (${wrong}). Nothing was changed.`,
    );
  };
  return (
    <View style={styles.group}>
      <Heading>Presets</Heading>
      <Soft>Size, rate and layout of the canvas that is marked, kept in this browser under a name.</Soft>
      {presets.map((preset) => (
        <View key={preset.name} role="listitem" aria-label={`Preset ${preset.name}`} style={styles.preset}>
          <View style={styles.words}>
            <Strong>{preset.name}</Strong>
            <Soft>{`${preset.width}×${preset.height}, ${rateLabel(preset.rate)} fps, ${preset.layout.kind}`}</Soft>
          </View>
          <Button
            mode="outlined"
            accessibilityLabel={`Add ${preset.name}`}
            onPress={() =>
              dispatch(id, { type: 'set-canvases', act: 'preset', ...presetAdded(clip, preset) })
            }
          >
            Add
          </Button>
          <Tool
            icon="delete-outline"
            label={`Delete preset ${preset.name}`}
            words=""
            onPress={() => dropPreset(preset.name)}
          />
        </View>
      ))}
      <View style={styles.row}>
        <TextInput
          mode="outlined"
          label="Preset name"
          aria-label="Preset name"
          value={name}
          onChangeText={setName}
          style={styles.field}
        />
        <Button mode="contained" onPress={keep}>
          Save the preset
        </Button>
      </View>
      {problem !== null && <Refusal>{problem}</Refusal>}
      <View style={styles.row}>
        <Button icon="file-outline" onPress={() => void open()}>
          Open a presets file
        </Button>
        <Button
          disabled={presets.length === 0}
          icon="download-outline"
          onPress={() => saveFile(presetFile())}
        >
          Save as a file
        </Button>
      </View>
    </View>
  );
}

const styles = StyleSheet.create({
  group: { gap: space.s },
  row: { flexDirection: 'row', alignItems: 'center', gap: space.s, flexWrap: 'wrap' },
  field: { flex: 1 },
  preset: { flexDirection: 'row', alignItems: 'center', gap: space.s, padding: space.s, ...card },
  words: { flex: 1 },
});
