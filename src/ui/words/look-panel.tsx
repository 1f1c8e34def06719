import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { percent } from '@core/figures/figures';

import {
  ALIGNS,
  PLAIN_OUTLINE,
  PLAIN_PLATE,
  PLAIN_SHADOW,
  STYLE_BOUNDS,
  type TextStyle,
} from '@core/words/text-style';
import { Choice } from '../parts/choice';
import { NumberField } from '../parts/number-field';
import { Swatches } from '../parts/swatches';
import { Tool } from '../parts/tool';
import { ToolRow } from '../parts/tool-row';
import { space } from '../theme/tokens';
import { FamilyRow } from './family-row';

type Part = 'letters' | 'plate' | 'outline' | 'shadow';
const PART_OPTIONS = [
  { value: 'letters', label: 'Letters' },
  { value: 'plate', label: 'Plate' },
  { value: 'outline', label: 'Outline' },
  { value: 'shadow', label: 'Shadow' },
] as const;
const ALIGN_ICONS = {
  left: 'format-align-left',
  middle: 'format-align-center',
  right: 'format-align-right',
} as const;

interface Props {
  style: TextStyle;
  /** Null where the letters are fitted to their box. */
  size: number | null;
  onStyle: (change: Partial<TextStyle>, joins?: string) => void;
  /** Fits the letters to their box or not; not there where they have no box of their own. */
  onFit?: (fitted: boolean) => void;
}

/** How words look: letters, plate, outline and shadow. */
export function LookPanel(props: Props) {
  const [part, setPart] = useState<Part>('letters');
  return (
    <View style={styles.panel}>
      <Choice label="What to change" value={part} options={PART_OPTIONS} onChange={setPart} />
      {part === 'letters' && <Letters {...props} />}
      {part === 'plate' && <Plate {...props} />}
      {part === 'outline' && <Outline {...props} />}
      {part === 'shadow' && <Shadow {...props} />}
    </View>
  );
}

/** A share that is typed in hundredths. */
function Share({
  label,
  value,
  of,
  onTake,
}: {
  label: string;
  value: number;
  of: keyof typeof STYLE_BOUNDS;
  onTake: (value: number) => void;
}) {
  const [least, most] = STYLE_BOUNDS[of];
  return (
    <NumberField
      label={label}
      unit="%"
      value={percent(value).replace(' %', '')}
      least={Math.round(least * 100)}
      most={Math.round(most * 100)}
      onTake={(typed) => onTake(typed / 100)}
    />
  );
}

function Letters({ style, size, onStyle, onFit }: Props) {
  return (
    <>
      <FamilyRow value={style.family} onTake={(family) => onStyle({ family })} />
      <ToolRow>
        <Tool
          icon="format-bold"
          label="Bold"
          pressed={style.weight >= 700}
          onPress={() => onStyle({ weight: style.weight >= 700 ? 400 : 700 })}
        />
        {ALIGNS.map((align) => (
          <Tool
            key={align}
            icon={ALIGN_ICONS[align]}
            label={`Align ${align}`}
            words={align === 'middle' ? 'Middle' : align === 'left' ? 'Left' : 'Right'}
            pressed={style.align === align}
            onPress={() => onStyle({ align })}
          />
        ))}
        {onFit && (
          <Tool
            icon="fit-to-page-outline"
            label="Fit the letters to the box"
            words="Fit"
            pressed={size === null}
            onPress={() => onFit(size !== null)}
          />
        )}
        {size !== null && (
          <View style={styles.field}>
            <Share label="Size" value={size} of="size" onTake={(next) => onStyle({ size: next }, 'size')} />
          </View>
        )}
        <View style={styles.field}>
          <Share
            label="Line height"
            value={style.lineHeight}
            of="lineHeight"
            onTake={(lineHeight) => onStyle({ lineHeight }, 'line')}
          />
        </View>
      </ToolRow>
      <Swatches label="Letters" value={style.colour} onTake={(colour) => onStyle({ colour })} />
    </>
  );
}

function Plate({ style: { plate }, onStyle }: Props) {
  return (
    <>
      <OnOff
        label="Plate"
        on={plate !== null}
        onChange={(on) => onStyle({ plate: on ? PLAIN_PLATE : null })}
      />
      {plate && (
        <>
          <View style={styles.row}>
            <Share
              label="Opacity"
              value={plate.cover}
              of="cover"
              onTake={(cover) => onStyle({ plate: { ...plate, cover } }, 'plate')}
            />
            <Share
              label="Room"
              value={plate.pad}
              of="pad"
              onTake={(pad) => onStyle({ plate: { ...plate, pad } }, 'plate')}
            />
            <Share
              label="Corners"
              value={plate.radius}
              of="radius"
              onTake={(radius) => onStyle({ plate: { ...plate, radius } }, 'plate')}
            />
          </View>
          <Swatches
            label="Plate"
            value={plate.colour}
            onTake={(colour) => onStyle({ plate: { ...plate, colour } })}
          />
        </>
      )}
    </>
  );
}

function Outline({ style: { outline }, onStyle }: Props) {
  return (
    <>
      <OnOff
        label="Outline"
        on={outline !== null}
        onChange={(on) => onStyle({ outline: on ? PLAIN_OUTLINE : null })}
      />
      {outline && (
        <>
          <View style={styles.row}>
            <Share
              label="Width"
              value={outline.width}
              of="outline"
              onTake={(width) => onStyle({ outline: { ...outline, width } }, 'outline')}
            />
          </View>
          <Swatches
            label="Outline"
            value={outline.colour}
            onTake={(colour) => onStyle({ outline: { ...outline, colour } })}
          />
        </>
      )}
    </>
  );
}

function Shadow({ style: { shadow }, onStyle }: Props) {
  return (
    <>
      <OnOff
        label="Shadow"
        on={shadow !== null}
        onChange={(on) => onStyle({ shadow: on ? PLAIN_SHADOW : null })}
      />
      {shadow && (
        <>
          <View style={styles.row}>
            <Share
              label="Opacity"
              value={shadow.cover}
              of="cover"
              onTake={(cover) => onStyle({ shadow: { ...shadow, cover } }, 'shadow')}
            />
            <Share
              label="Across"
              value={shadow.across}
              of="shift"
              onTake={(across) => onStyle({ shadow: { ...shadow, across } }, 'shadow')}
            />
            <Share
              label="Down"
              value={shadow.down}
              of="shift"
              onTake={(down) => onStyle({ shadow: { ...shadow, down } }, 'shadow')}
            />
            <Share
              label="Blur"
              value={shadow.blur}
              of="blur"
              onTake={(blur) => onStyle({ shadow: { ...shadow, blur } }, 'shadow')}
            />
          </View>
          <Swatches
            label="Shadow"
            value={shadow.colour}
            onTake={(colour) => onStyle({ shadow: { ...shadow, colour } })}
          />
        </>
      )}
    </>
  );
}

function OnOff({ label, on, onChange }: { label: string; on: boolean; onChange: (on: boolean) => void }) {
  return (
    <Choice
      label={label}
      value={on ? 'on' : 'off'}
      options={[
        { value: 'off', label: `No ${label.toLowerCase()}` },
        { value: 'on', label },
      ]}
      onChange={(value) => onChange(value === 'on')}
    />
  );
}

const styles = StyleSheet.create({
  panel: { gap: space.s },
  row: { flexDirection: 'row', gap: space.s },
  field: { width: 104, marginLeft: space.s },
});
