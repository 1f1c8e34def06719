import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { Gesture, GestureDetector } from 'react-native-gesture-handler';
import { Button } from 'react-native-paper';
import { useController, useWatch } from 'react-hook-form';
import { type Device, DEVICES, type Zone } from '@core/outlets/placement';
import { usualSize } from '@core/outlets/taken-sizes';
import { clamp } from '@core/picture/size';
import { Choice } from '../parts/choice';
import { EntryField } from '../parts/entry-field';
import { NumberField } from '../parts/number-field';
import { RefusalNotice } from '../parts/refusal';
import { Tool } from '../parts/tool';
import { Soft } from '../parts/words';
import { colours, space, TARGET } from '../theme/tokens';
import { listProblems } from './size-fields';
import type { SheetControl } from './value-field';
import { ZoneDrawing } from './zone-drawing';

const NAMES: Record<Device, string> = { phone: 'Phone', tablet: 'Tablet', desk: 'Desk' };
const OPTIONS = DEVICES.map((value) => ({ value, label: NAMES[value] }));
/** Rows of the drawing, in pixels, and the most columns. */
const ROWS = 300;
const COLUMNS = 320;
/** A zone is never thinner than this share of the canvas. */
const THIN = 0.02;
const FRESH: Zone = { name: 'Controls', x: 0, y: 0.85, width: 1, height: 0.15 };

/** A share of the canvas to a tenth of a percent. */
const roundShare = (share: number): number => Math.round(share * 1000) / 1000;

/** A zone moved and sized, inside the canvas. */
function clampZone({ name, x, y, width, height }: Zone): Zone {
  const [w, h] = [clamp(width, THIN, 1), clamp(height, THIN, 1)];
  return {
    name,
    x: roundShare(clamp(x, 0, 1 - w)),
    y: roundShare(clamp(y, 0, 1 - h)),
    width: roundShare(w),
    height: roundShare(h),
  };
}

/** The parts of the screen that the outlet's own controls cover: drawn on the canvas, dragged, or typed. */
export function ZoneFields({ control, index }: { control: SheetControl; index: number }) {
  const [device, setDevice] = useState<Device>('phone');
  const [chosen, setChosen] = useState(0);
  const { field, fieldState } = useController({ control, name: `placements.${index}.zones.${device}` });
  const sizes = useWatch({ control, name: `placements.${index}.sizes` });
  const zones = field.value;
  const canvas = usualSize(sizes);
  const scale = Math.min(ROWS / canvas.height, COLUMNS / canvas.width);
  const [width, height] = [canvas.width * scale, canvas.height * scale];
  const putZone = (place: number, zone: Zone) =>
    field.onChange(zones.map((one, i) => (i === place ? clampZone(zone) : one)));
  const zone = zones[chosen];
  const add = () => {
    field.onChange([...zones, FRESH]);
    setChosen(zones.length);
  };
  const remove = () => {
    field.onChange(zones.filter((_, i) => i !== chosen));
    setChosen(0);
  };
  return (
    <View style={styles.group}>
      <Choice
        label="Device"
        value={device}
        options={OPTIONS}
        onChange={(next) => {
          setDevice(next);
          setChosen(0);
        }}
      />
      <View style={[styles.canvas, { width: width + 2, height: height + 2 }]}>
        <ZoneDrawing width={width} height={height} zones={zones} chosen={chosen} />
        {zones.map((one, i) => (
          <ZoneHandle
            key={i}
            zone={one}
            on={i === chosen}
            size={{ width, height }}
            onChoose={() => setChosen(i)}
            onPut={(next) => putZone(i, next)}
          />
        ))}
      </View>
      <Soft>
        {zones.length === 0
          ? 'Nothing is covered on this device.'
          : 'Drag a zone to move it, and its lower right corner to size it.'}
      </Soft>
      {zone && (
        <>
          <EntryField
            label="Zone"
            value={zone.name}
            onSubmit={(name) => {
              if (name === '') return 'Give the zone a name.';
              putZone(chosen, { ...zone, name });
              return null;
            }}
          />
          <View style={styles.row}>
            {(
              [
                ['x', 'From left'],
                ['y', 'From top'],
                ['width', 'Width'],
                ['height', 'Height'],
              ] as const
            ).map(([part, label]) => (
              <NumberField
                key={part}
                label={label}
                unit="%"
                least={0}
                most={100}
                value={String(Number((zone[part] * 100).toFixed(1)))}
                onTake={(value) => putZone(chosen, { ...zone, [part]: value / 100 })}
              />
            ))}
          </View>
        </>
      )}
      <View style={styles.row}>
        <Button icon="plus" onPress={add}>
          Add a zone
        </Button>
        {zone && <Tool icon="delete-outline" label={`Remove zone ${zone.name}`} words="" onPress={remove} />}
      </View>
      {listProblems(fieldState.error).map((problem) => (
        <RefusalNotice key={problem}>{problem}</RefusalNotice>
      ))}
    </View>
  );
}

interface HandleProps {
  zone: Zone;
  on: boolean;
  size: { width: number; height: number };
  onChoose: () => void;
  onPut: (zone: Zone) => void;
}

/** Handle of a zone: all of it moves it, its lower right corner sizes it. */
function ZoneHandle({ zone, on, size, onChoose, onPut }: HandleProps) {
  const [from, setFrom] = useState(zone);
  const begin = () => {
    setFrom(zone);
    onChoose();
  };
  const drag = (moved: (x: number, y: number) => Partial<Zone>) =>
    Gesture.Pan()
      .runOnJS(true)
      .minDistance(2)
      .onBegin(begin)
      .onUpdate(({ translationX, translationY }) =>
        onPut({ ...from, ...moved(translationX / size.width, translationY / size.height) }),
      );
  const move = drag((x, y) => ({ x: from.x + x, y: from.y + y }));
  const resize = drag((x, y) => ({
    width: Math.min(from.width + x, 1 - from.x),
    height: Math.min(from.height + y, 1 - from.y),
  }));
  const box = {
    left: 1 + zone.x * size.width,
    top: 1 + zone.y * size.height,
    width: zone.width * size.width,
    height: zone.height * size.height,
  };
  return (
    <>
      <GestureDetector gesture={move}>
        <View role="button" aria-label={`Zone ${zone.name}`} aria-pressed={on} style={[styles.touch, box]} />
      </GestureDetector>
      {on && (
        <GestureDetector gesture={resize}>
          <View
            role="button"
            aria-label={`Size of zone ${zone.name}`}
            style={[
              styles.corner,
              { left: box.left + box.width - TARGET / 2, top: box.top + box.height - TARGET / 2 },
            ]}
          >
            <View style={styles.grip} />
          </View>
        </GestureDetector>
      )}
    </>
  );
}

const styles = StyleSheet.create({
  group: { gap: space.s },
  row: { flexDirection: 'row', flexWrap: 'wrap', gap: space.s, alignItems: 'flex-end' },
  canvas: { alignSelf: 'center', borderWidth: 1, borderColor: colours.ink, backgroundColor: colours.sheet },
  touch: { position: 'absolute', cursor: 'move' as 'pointer' },
  corner: {
    position: 'absolute',
    width: TARGET,
    height: TARGET,
    alignItems: 'center',
    justifyContent: 'center',
    cursor: 'nwse-resize' as 'pointer',
  },
  grip: { width: 14, height: 14, backgroundColor: colours.chalk, borderWidth: 2, borderColor: colours.woad },
});
