import { StyleSheet, View } from 'react-native';
import { addPreset } from '@core/job/canvases';
import { activeCanvas } from '@core/job/clip';
import { rateLabel } from '@core/time/frame-rate';
import { dispatch, presets, savePreset } from '@state/job';
import { NamedList } from '../parts/named-list';
import { Heading, Soft } from '../parts/words';
import { space } from '../theme/tokens';
import { useClip, useJob } from './job-context';

/** Canvases under names, to be made again in any job, and as a file. */
export function PresetList() {
  const { id } = useJob();
  const clip = useClip();
  return (
    <View style={styles.group}>
      <Heading>Presets</Heading>
      <Soft>Size, rate and layout of the canvas that is marked, kept in this browser under a name.</Soft>
      <NamedList
        store={presets}
        one="preset"
        many="presets"
        detail={({ width, height, rate, layout }) =>
          `${width}×${height}, ${rateLabel(rate)} fps, ${layout.kind}`
        }
        take={{
          label: 'Add',
          act: (preset) => dispatch(id, { type: 'set-canvases', act: 'preset', ...addPreset(clip, preset) }),
        }}
        onSave={(name) => savePreset(name, activeCanvas(clip))}
      />
    </View>
  );
}

const styles = StyleSheet.create({ group: { gap: space.s } });
