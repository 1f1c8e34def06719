import { StyleSheet, View } from 'react-native';
import { bytesLabel } from '@core/figures/figures';
import { MIN_VIDEO_BITRATE, MAX_VIDEO_BITRATE } from '@core/rate/bit-rate';
import {
  MIN_BYTES,
  MIN_QUANTISER,
  MAX_BYTES,
  MAX_QUANTISER,
  type Rate,
  type RateKind,
} from '@core/rate/encoding';
import { Choice } from '../parts/choice';
import { NumberField } from '../parts/number-field';
import { OptionList } from '../parts/option-list';
import { Soft } from '../parts/words';
import { space } from '../theme/tokens';

const KINDS: { value: RateKind; label: string; about: string }[] = [
  { value: 'worked-out', label: 'Calculated', about: 'From the canvas, the master and the outlet' },
  { value: 'variable', label: 'Variable', about: 'A target, and a most that busy scenes may take' },
  { value: 'constant', label: 'Constant', about: 'The same in every two seconds' },
  { value: 'quality', label: 'Constant quality', about: 'As many bits as it takes; the size comes out' },
  { value: 'size', label: 'A size', about: 'The file lands on it, within 3 %' },
];

/** Pieces that come to at least this share of what was asked for may still be brought to all of it, and to at most that. */
const FILLED = 0.9;
const OVERSHOT = 2;

interface Props {
  rate: Rate;
  /** Ways that the maker has. */
  offered: readonly RateKind[];
  /** Video bits a second to begin with. */
  bits: number;
  /** Bytes of the file as it is now, whether pieces of it were encoded to know them, and the least to be asked for. */
  bytes: number;
  tried: boolean;
  minBytes: number;
  /** Of the clip. */
  minutes: number;
  onChange: (rate: Rate) => void;
}

/** How the bits of the picture are shared out. */
export function RateFields({ rate, offered, bits, bytes, tried, minBytes, minutes, onChange }: Props) {
  const begin: Record<RateKind, Rate> = {
    'worked-out': { kind: 'worked-out' },
    variable: { kind: 'variable', bits, most: null },
    constant: { kind: 'constant', bits },
    quality: { kind: 'quality', quantiser: 22 },
    size: { kind: 'size', bytes: Math.max(MIN_BYTES, Math.round(bytes / 1e5) * 1e5), each: 'file' },
  };
  const isEachMinute = rate.kind === 'size' && rate.each === 'minute';
  const asked = rate.kind === 'size' ? rate.bytes * (isEachMinute ? minutes : 1) : 0;
  // Tenths of megabytes, as they are typed.
  const least = Math.ceil(Math.max(MIN_BYTES, isEachMinute ? minBytes / minutes : minBytes) / 1e5) * 1e5;
  return (
    <View style={styles.group}>
      <OptionList
        label="How the bit rate is set"
        value={rate.kind}
        options={KINDS.filter(({ value }) => offered.includes(value) || value === rate.kind)}
        onChange={(kind) => onChange(begin[kind])}
      />
      {rate.kind === 'variable' && (
        <View style={styles.row}>
          <BitsField label="Target" bits={rate.bits} onTake={(value) => onChange({ ...rate, bits: value })} />
          <BitsField
            label="Most"
            bits={rate.most ?? Math.min(MAX_VIDEO_BITRATE, 2 * rate.bits)}
            onTake={(value) => onChange({ ...rate, most: Math.max(rate.bits, value) })}
          />
        </View>
      )}
      {rate.kind === 'constant' && (
        <BitsField
          label="Video bit rate"
          bits={rate.bits}
          onTake={(value) => onChange({ ...rate, bits: value })}
        />
      )}
      {rate.kind === 'quality' && (
        <>
          <NumberField
            label="Quantiser"
            unit={`${MIN_QUANTISER} to ${MAX_QUANTISER}, less is better`}
            value={String(rate.quantiser)}
            least={MIN_QUANTISER}
            most={MAX_QUANTISER}
            onTake={(value) => onChange({ ...rate, quantiser: Math.round(value) })}
          />
          <Soft>About 18 looks like the master, 22 is good for a post, and 28 is small.</Soft>
        </>
      )}
      {rate.kind === 'size' && rate.bytes < least && (
        <Soft>{`This clip cannot be so small: ${bytesLabel(least)} is the least. It becomes as small as it can.`}</Soft>
      )}
      {rate.kind === 'size' && tried && bytes > OVERSHOT * asked && (
        <Soft>{`Pieces of this clip came to ${bytesLabel(bytes)} for the whole: it may not become so small in this browser. A server can make it smaller.`}</Soft>
      )}
      {rate.kind === 'size' && tried && bytes < FILLED * asked && (
        <Soft>{`This clip has no use for so much: at its best it comes to about ${bytesLabel(bytes)}.`}</Soft>
      )}
      {rate.kind === 'size' && (
        <View style={styles.row}>
          <NumberField
            label="Size"
            unit="MB"
            value={(rate.bytes / 1e6).toFixed(1)}
            least={least / 1e6}
            most={MAX_BYTES / 1e6}
            onTake={(value) => onChange({ ...rate, bytes: Math.round(value * 1e6) })}
          />
          <Choice
            label="Size of"
            value={rate.each}
            options={[
              { value: 'file', label: 'The file' },
              { value: 'minute', label: 'A minute' },
            ]}
            onChange={(each) => onChange({ ...rate, each })}
          />
        </View>
      )}
    </View>
  );
}

function BitsField({ label, bits, onTake }: { label: string; bits: number; onTake: (bits: number) => void }) {
  return (
    <NumberField
      label={label}
      unit={`Mb/s, ${MIN_VIDEO_BITRATE / 1e6} to ${MAX_VIDEO_BITRATE / 1e6}`}
      value={(bits / 1e6).toFixed(1)}
      least={MIN_VIDEO_BITRATE / 1e6}
      most={MAX_VIDEO_BITRATE / 1e6}
      onTake={(value) => onTake(Math.round(value * 1e6))}
    />
  );
}

const styles = StyleSheet.create({
  group: { gap: space.s, alignSelf: 'stretch' },
  row: { flexDirection: 'row', gap: space.l, alignItems: 'flex-end', flexWrap: 'wrap' },
});
