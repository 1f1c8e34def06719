import { useEffect, useMemo, useState } from 'react';
import {
  type GestureResponderEvent,
  Image,
  type LayoutChangeEvent,
  PixelRatio,
  StyleSheet,
  View,
} from 'react-native';
import type { Size } from '@core/picture/size';
import { Soft } from './words';
import { card, colours, space, TARGET } from '../theme/tokens';

interface Side {
  label: string;
  picture: Blob;
}

/** How high the window onto the pictures is at most. */
const MAX_HEIGHT = 420;
/** An arrow key moves the divider, and the pictures, by so many layout pixels. */
const STEP = 24;

/** The address of a blob while it is shown. */
function useAddress(blob: Blob): string {
  const address = useMemo(() => URL.createObjectURL(blob), [blob]);
  useEffect(() => () => URL.revokeObjectURL(address), [address]);
  return address;
}

interface Props {
  left: Side;
  right: Side;
  /** Of both pictures, in their own pixels. */
  size: Size;
  label: string;
}

const clampValue = (value: number, least: number, most: number): number =>
  Math.max(Math.min(least, most), Math.min(Math.max(least, most), value));

/** Two pictures of one size in one place, pixel for pixel, with a divider between them: both are moved by touch. */
export function SideBySide({ left, right, size, label }: Props) {
  const [room, setRoom] = useState(0);
  const [divider, setDivider] = useState(0.5);
  const [shift, setShift] = useState({ x: 0, y: 0 });
  /** Where both were when they were taken hold of. */
  const [begin, setBegin] = useState({ pageX: 0, pageY: 0, divider, ...shift });
  const leftAddress = useAddress(left.picture);
  const rightAddress = useAddress(right.picture);
  const ratio = PixelRatio.get();
  const own = { width: size.width / ratio, height: size.height / ratio };
  const window = { width: Math.min(room, own.width), height: Math.min(MAX_HEIGHT, own.height) };
  const move = (x: number, y: number) =>
    setShift({
      x: clampValue(x, window.width - own.width, 0),
      y: clampValue(y, window.height - own.height, 0),
    });
  const drag = (moved: (dx: number, dy: number) => void) => ({
    onStartShouldSetResponder: () => true,
    onMoveShouldSetResponder: () => true,
    onResponderTerminationRequest: () => false,
    onResponderGrant: ({ nativeEvent: { pageX, pageY } }: GestureResponderEvent) =>
      setBegin({ pageX, pageY, divider, ...shift }),
    onResponderMove: ({ nativeEvent: { pageX, pageY } }: GestureResponderEvent) =>
      moved(pageX - begin.pageX, pageY - begin.pageY),
  });
  const dragPictures = drag((dx, dy) => move(begin.x + dx, begin.y + dy));
  const dragDivider = drag((dx) =>
    setDivider(clampValue(begin.divider + dx / Math.max(1, window.width), 0, 1)),
  );
  const at = divider * window.width;
  const picture = (address: string, offset: number) => (
    <Image
      source={{ uri: address }}
      style={[styles.picture, own, { left: shift.x - offset, top: shift.y }]}
    />
  );
  const keys = (event: { key: string; preventDefault: () => void }) => {
    const by = { ArrowLeft: -STEP, ArrowRight: STEP }[event.key];
    if (by === undefined) return;
    event.preventDefault();
    setDivider(clampValue(divider + by / Math.max(1, window.width), 0, 1));
  };
  return (
    <View style={styles.all} onLayout={(event: LayoutChangeEvent) => setRoom(event.nativeEvent.layout.width)}>
      <View style={styles.labels}>
        <Soft>{left.label}</Soft>
        <Soft>{right.label}</Soft>
      </View>
      <View style={[styles.window, window]} role="group" aria-label={label}>
        <View style={styles.layer} {...dragPictures}>
          {picture(leftAddress, 0)}
          <View style={[styles.right, { left: at }]}>{picture(rightAddress, at)}</View>
        </View>
        <View
          role="slider"
          tabIndex={0}
          aria-label={`Divider: ${left.label} on the left, ${right.label} on the right`}
          aria-valuemin={0}
          aria-valuemax={100}
          aria-valuenow={Math.round(divider * 100)}
          style={[styles.handle, { left: at - TARGET / 2 }]}
          {...dragDivider}
          {...{ onKeyDown: keys }}
        >
          <View style={styles.line} />
          <View style={styles.grip} />
        </View>
      </View>
    </View>
  );
}

const styles = StyleSheet.create({
  all: { gap: space.xs, alignSelf: 'stretch' },
  labels: { flexDirection: 'row', justifyContent: 'space-between' },
  window: { ...card, overflow: 'hidden', padding: 0, touchAction: 'none' } as object,
  layer: { position: 'absolute', inset: 0, overflow: 'hidden', cursor: 'grab' } as object,
  picture: { position: 'absolute' },
  right: { position: 'absolute', top: 0, bottom: 0, right: 0, overflow: 'hidden' },
  handle: {
    position: 'absolute',
    top: 0,
    bottom: 0,
    width: TARGET,
    alignItems: 'center',
    justifyContent: 'center',
    cursor: 'ew-resize',
    touchAction: 'none',
  } as object,
  line: { position: 'absolute', top: 0, bottom: 0, width: 2, backgroundColor: colours.sheet },
  grip: {
    width: 14,
    height: 44,
    borderRadius: 4,
    borderWidth: 2,
    borderColor: colours.ink,
    backgroundColor: colours.sheet,
  },
});
