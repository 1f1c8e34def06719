import { StyleSheet, View } from 'react-native';
import type { Encoding } from '@core/rate/encoding';
import type { VideoEncodeSettings } from '@core/render/encode-settings';
import { levelName } from '@core/outlets/limits/level';
import { CheckBox } from '../parts/check-box';
import { Choice } from '../parts/choice';
import { NumberField } from '../parts/number-field';
import { Soft, Strong } from '../parts/words';
import { space } from '../theme/tokens';

interface Props {
  encoding: Encoding;
  made: VideoEncodeSettings;
  onChange: (change: Partial<Encoding>) => void;
}

/** Levels that can be forced, times ten. */
const LEVELS = [30, 31, 32, 40, 41, 42, 50, 51, 52] as const;

/** Fields of the video stream that are seldom changed. */
export function PictureFields({ encoding, made, onChange }: Props) {
  const { profile, level, keySeconds } = encoding;
  const isLossless = made.kind === 'lossless';
  return (
    <View style={styles.group}>
      <NumberField
        label="Key frame every"
        unit="seconds, 0.5 to 10"
        value={keySeconds.toFixed(1)}
        least={0.5}
        most={10}
        onTake={(value) => onChange({ keySeconds: value })}
      />
      {encoding.maker === 'server' && made.codec === 'avc' && (
        <>
          <NumberField
            label="B frames in a row"
            unit="0–4"
            value={String(encoding.betweenFrames)}
            least={0}
            most={4}
            onTake={(value) => onChange({ betweenFrames: Math.round(value) })}
          />
          {!isLossless && (
            <CheckBox
              label="Two passes"
              on={encoding.twoPasses}
              onChange={(twoPasses) => onChange({ twoPasses })}
            />
          )}
        </>
      )}
      {made.codec === 'avc' && !isLossless && (
        <>
          <Strong>Profile</Strong>
          <Choice
            label="Profile"
            value={profile}
            options={[
              { value: 'high', label: 'High' },
              { value: 'main', label: 'Main' },
            ]}
            onChange={(value) => onChange({ profile: value })}
          />
          <Strong>Level</Strong>
          <Choice
            label="Level"
            value={level === null ? 'fits' : String(level)}
            options={[
              { value: 'fits', label: 'Calculated' },
              ...LEVELS.map((value) => ({ value: String(value), label: levelName(value) })),
            ]}
            onChange={(value) => onChange({ level: value === 'fits' ? null : Number(value) })}
          />
          <Soft>
            {made.level === null
              ? 'No level of H.264 is enough for this canvas.'
              : `The file says level ${levelName(made.level)}.`}
          </Soft>
        </>
      )}
    </View>
  );
}

const styles = StyleSheet.create({ group: { gap: space.m, alignSelf: 'stretch' } });
