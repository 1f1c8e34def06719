import { StyleSheet, View } from 'react-native';
import { moveCue, withCue } from '@core/words/cue-edits';
import { findCue } from '@core/words/cue-list';
import { CAPTION_PANELS, type CaptionPanel, useWordsBench } from '@state/words';
import { Choice } from '../parts/choice';
import { colours, space } from '../theme/tokens';
import { BringPanel } from './bring-panel';
import { CaptionEditPanel } from './caption-edit-panel';
import { CaptionLookPanel } from './caption-look-panel';
import { ClipStrip, type StripScale } from './clip-strip';
import { CueList } from './cue-list';
import { CuePanel } from './cue-panel';
import { LimitsPanel } from './limits-panel';
import { SpanBar } from './span-bar';
import { TapAlong } from './tap-along';
import type { CaptionTools } from './use-captions';
import { useClipTime } from './use-clip-time';
import type { WordsTools } from './use-words';

const PANEL_LABELS: Record<CaptionPanel, string> = {
  cues: 'Cue',
  bring: 'Bring in',
  tap: 'Tap',
  edit: 'All',
  look: 'Look',
  limits: 'Limits',
};
const PANEL_OPTIONS = CAPTION_PANELS.map((value) => ({ value, label: PANEL_LABELS[value] }));

/** Tray for a thumb while the clip plays: the cue that is worked on, or the button to tap along. */
export function CaptionTray({ captions }: { captions: CaptionTools }) {
  const panel = useWordsBench((state) => state.captionPanel);
  return (
    <View style={styles.panel}>
      {panel === 'cues' && <CuePanel captions={captions} />}
      {panel === 'tap' && <TapAlong captions={captions} />}
      <Choice
        label="What to do with captions"
        value={panel}
        options={PANEL_OPTIONS}
        onChange={(value) => useWordsBench.setState({ captionPanel: value })}
      />
    </View>
  );
}

/** The captions on the strip, and below it the list of them, or what is done with all of them. */
export function CaptionWork({ tools, captions }: { tools: WordsTools; captions: CaptionTools }) {
  const panel = useWordsBench((state) => state.captionPanel);
  return (
    <>
      <ClipStrip>{(scale) => <CueLane captions={captions} scale={scale} />}</ClipStrip>
      {(panel === 'cues' || panel === 'tap') && <CueList captions={captions} />}
      {panel === 'bring' && <BringPanel captions={captions} />}
      {panel === 'edit' && <CaptionEditPanel captions={captions} />}
      {panel === 'look' && <CaptionLookPanel tools={tools} captions={captions} />}
      {panel === 'limits' && <LimitsPanel captions={captions} />}
    </>
  );
}

/** The cues that the strip shows, and the one that is worked on with its handles. */
function CueLane({ captions, scale }: { captions: CaptionTools; scale: StripScale }) {
  const { frames } = useClipTime();
  const chosen = useWordsBench((state) => state.cue);
  const { listed, timeline, spoken } = captions;
  const seen = listed.filter(({ at }) => at !== null && at.to > scale.from && at.from < scale.to);
  const own = seen.find(({ cue }) => cue.id === chosen);
  return (
    <>
      {spoken
        .filter(({ from, to }) => to > scale.from && from < scale.to)
        .map(({ from, to }) => (
          <View
            key={from}
            style={[styles.spoken, { left: scale.place(from), width: scale.place(to) - scale.place(from) }]}
          />
        ))}
      {seen.map(
        ({ cue, at }) =>
          at &&
          cue.id !== chosen && (
            <View
              key={cue.id}
              style={[
                styles.cue,
                captions.faults.has(cue.id) && styles.faulty,
                {
                  left: scale.place(at.from),
                  width: Math.max(2, scale.place(at.to) - scale.place(at.from) - 1),
                },
              ]}
            />
          ),
      )}
      {own?.at && (
        <SpanBar
          label={own.cue.text.replaceAll('\n', ' ')}
          at={own.at}
          scale={scale}
          frames={frames}
          onTime={(stretch) =>
            captions.setCues(
              'time',
              withCue(captions.captions.cues, own.cue.id, (cue) => moveCue(cue, stretch, timeline)),
              `time-${own.cue.id}`,
            )
          }
        />
      )}
    </>
  );
}

/** The cue on screen. */
export function useShownCue(captions: CaptionTools) {
  const { frame } = useClipTime();
  return frame === null ? null : findCue(captions.listed, frame);
}

const styles = StyleSheet.create({
  panel: { gap: space.s },
  cue: {
    position: 'absolute',
    top: 10,
    bottom: 10,
    backgroundColor: colours.woadWash,
    borderWidth: 1,
    borderColor: colours.woad,
    borderRadius: 2,
    pointerEvents: 'none',
  },
  faulty: { borderColor: colours.weld, borderWidth: 2, borderStyle: 'dashed' },
  spoken: { position: 'absolute', bottom: 0, height: 6, backgroundColor: colours.verdigris, opacity: 0.6 },
});
