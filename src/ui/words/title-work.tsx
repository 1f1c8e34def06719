import { Pressable, StyleSheet, Text, View } from 'react-native';
import { toSpans, toStretches } from '@core/words/spans';
import type { TextBlock } from '@core/words/text-block';
import { BLOCK_PANELS, type BlockPanel, useWordsBench } from '@state/words';
import { Choice } from '../parts/choice';
import { ToolRow } from '../parts/tool-row';
import { Soft } from '../parts/words';
import { colours, fonts, sizes, space, TARGET } from '../theme/tokens';
import { CardPanel } from './card-panel';
import { ClipStrip } from './clip-strip';
import { ContrastRow } from './contrast-row';
import { LookPanel } from './look-panel';
import { BlockPlacePanel } from './place-panel';
import { SpanBar } from './span-bar';
import { StyleList } from './style-list';
import { TimePanel } from './time-panel';
import { useClipTime } from './use-clip-time';
import { useTimeline, type WordsTools } from './use-words';
import { WritePanel } from './write-panel';

const PANEL_LABELS: Record<BlockPanel, string> = {
  write: 'Write',
  look: 'Look',
  place: 'Place',
  time: 'Time',
  styles: 'Styles',
};
const PANEL_OPTIONS = BLOCK_PANELS.map((value) => ({ value, label: PANEL_LABELS[value] }));

/** Tray of the block that is worked on. */
export function TitleTray({ tools }: { tools: WordsTools }) {
  const panel = useWordsBench((state) => state.panel);
  const { block } = tools;
  return (
    <View style={styles.panel}>
      {panel === 'write' && <WritePanel tools={tools} />}
      {panel === 'look' &&
        (block ? (
          <LookPanel
            style={block.style}
            size={block.fitted ? null : block.style.size}
            onStyle={tools.style}
            onFit={(fitted) => tools.place({ fitted }, true)}
          />
        ) : (
          <Soft>Tap a block on the picture to change how it looks.</Soft>
        ))}
      {panel === 'place' && <BlockPlacePanel tools={tools} />}
      {(panel === 'look' || panel === 'place') && block && block.on !== 'card' && (
        <ContrastRow
          style={block.style}
          isOwn={(text) => text === block.text}
          onStyle={tools.style}
          {...(block.fitted ? {} : { onFit: () => tools.place({ fitted: true }, true) })}
        />
      )}
      {panel === 'time' && <TimePanel tools={tools} />}
      {panel === 'styles' && (
        <StyleList
          style={block?.style ?? null}
          onTake={(style) => block && tools.change('style', { style })}
        />
      )}
      <Choice
        label="What to change of the block"
        value={panel}
        options={PANEL_OPTIONS}
        onChange={(value) => useWordsBench.setState({ panel: value })}
      />
    </View>
  );
}

/** The clip's blocks, when the one that is worked on is seen, and the end card. */
export function TitleWork({ tools }: { tools: WordsTools }) {
  const timeline = useTimeline();
  const { frames } = useClipTime();
  const { block, text } = tools;
  const blocks = text.blocks.filter(({ on }) => on !== 'cover');
  const [at] = block?.spans ? toStretches(block.spans, timeline) : [];
  return (
    <>
      {blocks.length > 0 && (
        <ToolRow gap={space.s}>
          {blocks.map((one) => (
            <BlockChip key={one.id} block={one} on={one.id === block?.id} />
          ))}
        </ToolRow>
      )}
      {block && block.on !== 'card' && (
        <ClipStrip>
          {(scale) =>
            at ? (
              <SpanBar
                label={toName(block)}
                at={at}
                scale={scale}
                frames={frames}
                onTime={(stretch) => {
                  const spans = toSpans(stretch, timeline);
                  if (spans) tools.change('time', { spans }, 'time');
                }}
              />
            ) : (
              <View style={styles.whole}>
                <Soft>{block.spans ? 'Not in the clip now' : 'Seen the whole clip long'}</Soft>
              </View>
            )
          }
        </ClipStrip>
      )}
      <CardPanel tools={tools} />
    </>
  );
}

const toName = ({ text }: TextBlock): string => text.replaceAll('\n', ' ').trim() || 'No words yet';

function BlockChip({ block, on }: { block: TextBlock; on: boolean }) {
  return (
    <Pressable
      role="radio"
      aria-label={`Block “${toName(block)}”`}
      aria-checked={on}
      onPress={() => useWordsBench.setState({ block: on ? null : block.id })}
      style={[styles.chip, on && styles.on]}
    >
      <Text numberOfLines={1} style={styles.name}>
        {toName(block)}
      </Text>
    </Pressable>
  );
}

const styles = StyleSheet.create({
  panel: { gap: space.s },
  whole: { flex: 1, alignItems: 'center', justifyContent: 'center' },
  chip: {
    minHeight: TARGET,
    maxWidth: 200,
    paddingHorizontal: space.m,
    justifyContent: 'center',
    borderRadius: 6,
    borderWidth: 2,
    borderColor: colours.hairline,
    backgroundColor: colours.sheet,
  },
  on: { borderColor: colours.woad, backgroundColor: colours.woadWash },
  name: { fontFamily: fonts.strong, fontSize: sizes.small, color: colours.ink },
});
