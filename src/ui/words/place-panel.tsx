import { StyleSheet, View } from 'react-native';
import { isOffBand } from '@core/words/grounds';
import type { ContainerRegion } from '@core/words/text-block';
import type { Seat } from '@core/words/text-art';
import { useWordsBench } from '@state/words';
import { useClip } from '../job/job-context';
import { useCanvasLabel } from '../job/use-target';
import { CheckBox } from '../parts/check-box';
import { Choice } from '../parts/choice';
import { NumberField } from '../parts/number-field';
import { Tool } from '../parts/tool';
import { ToolRow } from '../parts/tool-row';
import { Soft } from '../parts/words';
import { space } from '../theme/tokens';
import type { WordsTools } from './use-words';

const GROUND_OPTIONS: readonly { value: ContainerRegion; label: string }[] = [
  { value: 'canvas', label: 'Picture' },
  { value: 'above', label: 'Band above' },
  { value: 'below', label: 'Band below' },
  { value: 'card', label: 'End card' },
];
const SEAT_ICONS: Record<Seat, 'align-vertical-top' | 'align-vertical-center' | 'align-vertical-bottom'> = {
  top: 'align-vertical-top',
  middle: 'align-vertical-center',
  bottom: 'align-vertical-bottom',
};
const SEAT_WORDS: Record<Seat, string> = { top: 'Top', middle: 'Centre', bottom: 'Bottom' };

/** The box in hundredths of its ground. */
const SIDES = [
  { of: 'x', label: 'From left', least: -100, most: 200 },
  { of: 'y', label: 'From top', least: -100, most: 200 },
  { of: 'width', label: 'Width', least: 1, most: 200 },
  { of: 'height', label: 'Height', least: 1, most: 200 },
] as const;

/** Where the block lies: on the picture or on a band, on all canvases or on this one alone. */
export function BlockPlacePanel({ tools }: { tools: WordsTools }) {
  const { block, alone, canvas } = tools;
  const { canvases } = useClip();
  const labelOf = useCanvasLabel();
  const snaps = useWordsBench((state) => state.snaps);
  if (!block) return <Soft>Tap a block on the picture to place it.</Soft>;
  const shown = tools.canvasText.places.find((place) => place.block === block.id)?.shown !== false;
  return (
    <View style={styles.panel}>
      <Choice
        label="What the block lies on"
        value={block.on}
        options={GROUND_OPTIONS}
        onChange={(on) => tools.place({ on }, true)}
      />
      {isOffBand(block.on, canvas, tools.picture) && (
        <Soft>
          {`${labelOf(canvas)} has no band there: the words lie on the picture, on a plate unless they have an outline.`}
        </Soft>
      )}
      <ToolRow>
        {(Object.keys(SEAT_ICONS) as Seat[]).map((seat) => (
          <Tool
            key={seat}
            icon={SEAT_ICONS[seat]}
            label={`${SEAT_WORDS[seat]} of the box`}
            words={SEAT_WORDS[seat]}
            pressed={block.seat === seat}
            onPress={() => tools.place({ seat }, true)}
          />
        ))}
        <Tool
          icon="arrow-expand-horizontal"
          label="Middle of its ground"
          words="Middle"
          onPress={() => tools.place({ box: { ...block.box, x: (1 - block.box.width) / 2 } }, true)}
        />
        <Tool
          icon="magnet"
          label="Snap to lines"
          words="Snap"
          pressed={snaps}
          onPress={() => useWordsBench.setState({ snaps: !snaps })}
        />
      </ToolRow>
      <View style={styles.row}>
        {SIDES.map(({ of, label, least, most }) => (
          <NumberField
            key={of}
            label={label}
            unit="%"
            value={String(Math.round(block.box[of] * 1000) / 10)}
            least={least}
            most={most}
            onTake={(typed) => tools.place({ box: { ...block.box, [of]: typed / 100 } }, true)}
          />
        ))}
      </View>
      {canvases.length > 1 && (
        <>
          <CheckBox
            label={`Its own place on ${labelOf(canvas)}`}
            on={alone}
            onChange={(own) => tools.setAlone(own)}
          />
          <CheckBox label={`Shown on ${labelOf(canvas)}`} on={shown} onChange={(on) => tools.setShown(on)} />
        </>
      )}
    </View>
  );
}

const styles = StyleSheet.create({ panel: { gap: space.s }, row: { flexDirection: 'row', gap: space.s } });
