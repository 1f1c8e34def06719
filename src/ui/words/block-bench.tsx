import { useState } from 'react';
import { Pressable, StyleSheet, View } from 'react-native';
import Svg, { Line, Path } from 'react-native-svg';
import type { Rect } from '@core/picture/size';
import { allZones } from '@core/outlets/placement';
import { coverCrop } from '@core/words/cover';
import { snapLines } from '@core/words/snap-box';
import { resolveBlock, type TextBlock } from '@core/words/text-block';
import { coverSize } from '@state/picture';
import { canvasView, usePlayer } from '@state/player';
import { useWordsBench } from '@state/words';
import { useCanvasLabel, useTarget } from '../job/use-target';
import { PictureView } from '../parts/picture-view';
import { canvasMark } from '../theme/dyes';
import { colours } from '../theme/tokens';
import { BlockHandles } from './block-handles';
import type { WordsTools } from './use-words';

interface Props {
  tools: WordsTools;
  width: number;
  height: number;
}

/** Lines that a box snapped to, in pixels of the canvas. */
export interface Guides {
  across: number | null;
  down: number | null;
}
const NO_GUIDES: Guides = { across: null, down: null };

/** The canvas with its words: a block is chosen by a tap, moved by a drag, and sized by its corners. */
export function BlockBench({ tools, width, height }: Props) {
  const labelOf = useCanvasLabel();
  const { placement } = useTarget();
  const playing = usePlayer((state) => state.playing);
  const [guides, setGuides] = useState(NO_GUIDES);
  const { canvas, text, canvasText, block, picture, side } = tools;
  const mark = canvasMark(canvas.dye);
  const scale = width / canvas.width;
  const toSide = ({ on }: TextBlock) => (on === 'card' || on === 'cover' ? on : 'clip');
  const shown = text.blocks.flatMap((one) => {
    const own = resolveBlock(one, canvasText.places);
    return own && toSide(own) === side ? [own] : [];
  });
  const onScreen = (rect: Rect) => ({
    left: rect.x * scale,
    top: rect.y * scale,
    width: rect.width * scale,
    height: rect.height * scale,
  });
  const others = shown.filter(({ id }) => id !== block?.id).map(tools.rectOf);
  const zones = allZones(placement).map((zone) => ({
    x: zone.x * canvas.width,
    y: zone.y * canvas.height,
    width: zone.width * canvas.width,
    height: zone.height * canvas.height,
  }));
  const lines = snapLines(canvas, [...others, ...zones, ...(picture ? [picture] : [])]);
  return (
    <View style={[styles.area, { width: width + 6, height: height + 6, borderColor: mark.dye }]}>
      <PictureView view={canvasView(canvas.id)} label={labelOf(canvas)} width={width} height={height} />
      {!playing && (
        <View style={[styles.over, { width, height }]}>
          {shown
            .filter(({ id }) => id !== block?.id)
            .map((one) => (
              <BlockOutline key={one.id} block={one} place={onScreen(tools.rectOf(one))} />
            ))}
          {block &&
            toSide(block) === side &&
            tools.canvasText.places.find(({ block: id }) => id === block.id)?.shown !== false && (
              <BlockHandles
                tools={tools}
                block={block}
                scale={scale}
                lines={lines}
                onGuides={(next) => setGuides(next ?? NO_GUIDES)}
              />
            )}
          <Svg width={width} height={height} style={styles.guides} aria-hidden>
            {side === 'cover' && (
              <CropOutline crop={coverCrop(canvas, coverSize(canvas))} {...{ width, height }} />
            )}
            {guides.across !== null && (
              <Line
                x1={guides.across * scale}
                x2={guides.across * scale}
                y1={0}
                y2={height}
                stroke={colours.madder}
                strokeWidth={1.5}
              />
            )}
            {guides.down !== null && (
              <Line
                x1={0}
                x2={width}
                y1={guides.down * scale}
                y2={guides.down * scale}
                stroke={colours.madder}
                strokeWidth={1.5}
              />
            )}
          </Svg>
        </View>
      )}
    </View>
  );
}

/** The part of the canvas that the cover shows; the rest is papered over. */
function CropOutline({ crop, width, height }: { crop: Rect; width: number; height: number }) {
  const [x, y] = [crop.x * width, crop.y * height];
  const [right, bottom] = [x + crop.width * width, y + crop.height * height];
  return (
    <Path
      d={`M0 0H${width}V${height}H0Z M${x} ${y}V${bottom}H${right}V${y}Z`}
      fill={colours.papered}
      fillRule="evenodd"
    />
  );
}

/** A block that is not worked on: a tap works on it. */
function BlockOutline({
  block,
  place,
}: {
  block: TextBlock;
  place: { left: number; top: number; width: number; height: number };
}) {
  return (
    <Pressable
      role="button"
      aria-label={`Work on the block “${block.text.replaceAll('\n', ' ')}”`}
      onPress={() =>
        useWordsBench.setState({ block: block.id, ...(block.on === 'cover' ? {} : { work: 'titles' }) })
      }
      style={[styles.outline, place]}
    />
  );
}

const styles = StyleSheet.create({
  area: { borderWidth: 3, borderRadius: 3, userSelect: 'none' },
  over: { position: 'absolute', left: 0, top: 0, overflow: 'hidden' },
  outline: {
    position: 'absolute',
    borderWidth: 1.5,
    borderStyle: 'dashed',
    borderColor: colours.softInk,
    outlineWidth: 1,
    outlineStyle: 'solid',
    outlineColor: colours.chalk,
  },
  guides: { position: 'absolute', left: 0, top: 0, pointerEvents: 'none' },
});
