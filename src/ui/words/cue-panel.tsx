import { useRef, useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { rateValue } from '@core/time/frame-rate';
import { type Cue, MAX_CUE_TEXT, MAX_CUES } from '@core/words/captions';
import { addCue, moveCue, mergeCues, splitCue, withCue } from '@core/words/cue-edits';
import { faultWords } from '@core/words/cue-lint';
import type { Stretch } from '@core/words/spans';
import { useWordsBench } from '@state/words';
import { TextArea } from '../parts/text-area';
import { RefusalNotice } from '../parts/refusal';
import { useTyping } from '../parts/use-typing';
import { Tool } from '../parts/tool';
import { ToolRow } from '../parts/tool-row';
import { Soft } from '../parts/words';
import { colours, space } from '../theme/tokens';
import type { CaptionTools } from './use-captions';
import { useClipTime } from './use-clip-time';

const FULL = `A clip holds ${MAX_CUES} captions at most.`;
/** A cue that is added stays so long, in seconds, where there is room. */
const BEGIN = 2;

/** The words and the time of one cue. */
export function CuePanel({ captions }: { captions: CaptionTools }) {
  const chosen = useWordsBench((state) => state.cue);
  const time = useClipTime();
  const cursor = useRef(0);
  const [refusal, setRefusal] = useState<{ cue: string | null; reason: string } | null>(null);
  const refuse = (reason: string) => setRefusal({ cue: chosen, reason });
  const { listed, timeline } = captions;
  const { cues } = captions.captions;
  const index = listed.findIndex(({ cue }) => cue.id === chosen);
  const own = listed[index];
  const next = listed[index + 1];
  const isFull = cues.length >= MAX_CUES;
  const add = () => {
    const from = time.frame ?? 0;
    const to = from + Math.round(BEGIN * rateValue(timeline.rate));
    const added = addCue(cues, { from, to }, timeline);
    if (!added) return refuse(isFull ? FULL : 'There is a caption here already.');
    setRefusal(null);
    captions.setCues('add', added.cues);
    captions.choose(added.id);
  };
  const addTool = <Tool icon="plus" label="Add here: a caption" words="Add here" onPress={add} />;
  if (!own) {
    return (
      <View style={styles.row}>
        {addTool}
        <Soft style={styles.grow}>{refusal?.reason ?? 'Tap a caption in the list to change it.'}</Soft>
      </View>
    );
  }
  const { cue, at } = own;
  const setStretch = (stretch: Stretch) =>
    captions.setCues(
      'time',
      withCue(cues, cue.id, (old) => moveCue(old, stretch, timeline)),
      `time-${cue.id}`,
    );
  const split = () => {
    const parts = splitCue(cues, own, cursor.current, timeline);
    if (!parts) return refuse(isFull ? FULL : 'Put the cursor between two of its words first.');
    setRefusal(null);
    captions.setCues('split', parts);
  };
  const merge = () => {
    const merged = next && mergeCues(cues, own, next, timeline);
    if (!merged) return refuse(`Together they are longer than the ${MAX_CUE_TEXT} characters of a caption.`);
    setRefusal(null);
    captions.setCues('merge', merged);
  };
  const { frame } = time;
  return (
    <View style={styles.panel}>
      <CueWords captions={captions} cue={cue} onCursor={(place) => (cursor.current = place)} />
      <ToolRow>
        {addTool}
        <Tool
          icon="ray-start-arrow"
          label="The caption begins here"
          words="Begins here"
          disabled={frame === null || !at || frame >= at.to}
          onPress={() => at && frame !== null && setStretch({ from: frame, to: at.to })}
        />
        <Tool
          icon="ray-end-arrow"
          label="The caption ends here"
          words="Ends here"
          disabled={frame === null || !at || frame < at.from}
          onPress={() => at && frame !== null && setStretch({ from: at.from, to: frame + 1 })}
        />
        <Tool
          icon="format-page-split"
          label="Split the caption at the cursor"
          words="Split"
          onPress={split}
        />
        <Tool
          icon="table-merge-cells"
          label="Merge the caption with the next"
          words="Merge"
          disabled={!next?.at}
          onPress={merge}
        />
        <Tool
          icon="play-circle-outline"
          label="Play the caption"
          words="Play"
          disabled={!at}
          onPress={() => at && time.playFrom(at.from)}
        />
        <Tool
          icon="delete-outline"
          label="Remove the caption"
          words="Remove"
          onPress={() => {
            captions.setCues(
              'remove',
              cues.filter((other) => other.id !== cue.id),
            );
            captions.choose(next?.cue.id ?? null);
          }}
        />
      </ToolRow>
      {refusal?.cue === cue.id && <RefusalNotice>{refusal.reason}</RefusalNotice>}
    </View>
  );
}

interface CueWordsProps {
  captions: CaptionTools;
  cue: Cue;
  onCursor: (place: number) => void;
}

/** Text of a cue, and its faults while it is typed. */
function CueWords({ captions, cue, onCursor }: CueWordsProps) {
  const typing = useTyping(cue.id, cue.text, {
    show: (text) => captions.showText(cue.id, text),
    keep: (text) => captions.setText(cue.id, text),
  });
  return (
    <>
      <TextArea
        label="Words of the caption"
        value={typing.text}
        most={MAX_CUE_TEXT}
        onCursor={onCursor}
        onChange={typing.type}
        onBlur={typing.leave}
      />
      {captions.findFaults(cue.id, typing.text).map((fault, i) => (
        <Soft key={i} style={styles.fault}>
          {faultWords(fault)}
        </Soft>
      ))}
    </>
  );
}

const styles = StyleSheet.create({
  panel: { gap: space.s },
  row: { flexDirection: 'row', gap: space.s, alignItems: 'center' },
  grow: { flex: 1 },
  fault: { color: colours.weld },
});
