import { StyleSheet, View } from 'react-native';
import type { Encoding } from '@core/rate/encoding';
import type { Placement } from '@core/outlets/placement';
import { Choice } from '../parts/choice';
import { NumberField } from '../parts/number-field';
import { Soft, Strong } from '../parts/words';
import { space } from '../theme/tokens';

type Sound = Encoding['sound'];
interface Props {
  sound: Sound;
  /** True when a bitrate is asked for. */
  hasRate: boolean;
  /** Loudness that the outlet brings every clip to. */
  target: Placement['audio']['loudness'];
  onChange: (sound: Sound) => void;
}

/** Default of a loudness of one's own where the outlet has none, in LUFS (common practice, no source). */
const USUAL_LOUDNESS = -14;

/** How the sound is encoded, and how loud it becomes. */
export function SoundFields({ sound, hasRate, target, onChange }: Props) {
  const { loudness } = sound;
  const own = typeof loudness === 'number';
  return (
    <View style={styles.group}>
      <Strong>Loudness</Strong>
      <Choice
        label="Loudness"
        value={own ? 'own' : loudness}
        options={[
          { value: 'kept', label: 'As it is' },
          ...(target ? [{ value: 'outlet' as const, label: `The outlet’s, ${target.target} LUFS` }] : []),
          { value: 'own', label: 'My own' },
        ]}
        onChange={(value) =>
          onChange({ ...sound, loudness: value === 'own' ? (target?.target ?? USUAL_LOUDNESS) : value })
        }
      />
      {own && (
        <NumberField
          label="Loudness"
          unit="LUFS, −40 to −5"
          value={loudness.toFixed(1)}
          least={-40}
          most={-5}
          onTake={(value) => onChange({ ...sound, loudness: value })}
        />
      )}
      <Soft>Measured over the clip by EBU R 128. Peaks are held under the outlet’s ceiling in any case.</Soft>
      {hasRate && (
        <NumberField
          label="Sound bit rate"
          unit="kb/s, 64 to 320"
          value={String(sound.bits / 1000)}
          least={64}
          most={320}
          onTake={(value) => onChange({ ...sound, bits: Math.round(value) * 1000 })}
        />
      )}
      <Strong>Sample rate</Strong>
      <Choice
        label="Sample rate"
        value={sound.sampleRate === null ? 'master' : String(sound.sampleRate)}
        options={[
          { value: 'master', label: 'The master’s' },
          { value: '44100', label: '44.1 kHz' },
          { value: '48000', label: '48 kHz' },
        ]}
        onChange={(value) =>
          onChange({ ...sound, sampleRate: value === 'master' ? null : value === '44100' ? 44_100 : 48_000 })
        }
      />
      <Strong>Channels</Strong>
      <Choice
        label="Channels"
        value={sound.channels === null ? 'master' : String(sound.channels)}
        options={[
          { value: 'master', label: 'The master’s' },
          { value: '1', label: 'Mono' },
          { value: '2', label: 'Stereo' },
        ]}
        onChange={(value) =>
          onChange({ ...sound, channels: value === 'master' ? null : value === '1' ? 1 : 2 })
        }
      />
    </View>
  );
}

const styles = StyleSheet.create({ group: { gap: space.m, alignSelf: 'stretch' } });
