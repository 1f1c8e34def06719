import { useMemo } from 'react';
import { useShallow } from 'zustand/react/shallow';
import type { ActOf } from '@core/job/commands/commands';
import { listShots } from '@core/cut/master-shots';
import { findSource } from '@core/job/job';
import { PLAIN_CANVAS_TEXT } from '@core/words/canvas-text';
import { type Captions, type CaptionWay, type Cue } from '@core/words/captions';
import { type CueFault, lintCues } from '@core/words/cue-lint';
import { rewordCue, withCue } from '@core/words/cue-edits';
import { findMissingGraphemes } from '@core/words/font-runs';
import { type ListedCue, listCues } from '@core/words/cue-list';
import { type Stretch, toStretches, type Timeline } from '@core/words/spans';
import { listStretches } from '@core/sound/waveform';
import { toFrame, toSeconds } from '@core/time/frame-rate';
import { useFontBook, useWordsBench } from '@state/words';
import { dispatch } from '@state/job';
import { selectSpeech, type SpeechState, useSpeech } from '@state/master';
import { useJob, useLooks } from '../job/job-context';
import { useTimeline, type WordsTools } from './use-words';

/** The clip's captions as they are listed, and the ways to change them. */
export interface CaptionTools {
  captions: Captions;
  timeline: Timeline;
  listed: ListedCue[];
  faults: Map<string, CueFault[]>;
  /** Output frames at which the picture changes. */
  cuts: number[];
  /** Stretches of the clip in which somebody speaks; empty while that is not known. */
  spoken: Stretch[];
  way: CaptionWay;
  /** The cue that is worked on. */
  chosen: string | null;
  /** Shows a cue with other words while they are typed; what is wrong with it then. */
  showText(cue: string, text: string): void;
  findFaults(cue: string, text: string): CueFault[];
  setText(cue: string, text: string): void;
  setCues(act: ActOf<'set-cues'>, cues: Cue[], joins?: string): void;
  setLook(act: ActOf<'set-captions'>, change: Partial<Omit<Captions, 'cues'>>, joins?: string): void;
  setWay(way: CaptionWay): void;
  choose(cue: string | null): void;
}

/** Where the picture changes: at the cuts of the clip, and at the shots of its masters. */
function useCuts(timeline: Timeline): number[] {
  const job = useJob();
  return useMemo(() => {
    const ids = [...new Set(timeline.cut.map((range) => range.master))];
    const starts = ids.flatMap((master) => {
      const source = findSource(job, master);
      return listShots(job.edit.shots, source).flatMap((shot) =>
        toStretches([{ master, in: shot.in, out: shot.in + 1 }], timeline).map(({ from }) => from),
      );
    });
    return [...new Set([...timeline.starts.slice(1, -1), ...starts])].sort((a, b) => a - b);
  }, [job, timeline]);
}

const hasFailed = (state: SpeechState | undefined): boolean => state?.state === 'failed';

/** Where somebody speaks in the clip: as far as that was looked for, or where its sound has no pauses. */
function useSpoken(timeline: Timeline): Stretch[] {
  const { masters } = useJob();
  const passOf = useLooks(masters);
  const found = useSpeech(
    useShallow((all) =>
      masters.map((master) => selectSpeech(all[master.fingerprint], master)?.spans ?? null),
    ),
  );
  const failed = useSpeech(useShallow((all) => masters.map((master) => hasFailed(all[master.fingerprint]))));
  return useMemo(() => {
    const spans = masters.flatMap((master, i) => {
      const source = timeline.masters(master.id);
      const end = toSeconds(source.frames, source.rate);
      const sound = passOf(master.fingerprint)?.sound;
      // Where nothing that knows speech could be had, what is no pause stands for it.
      const loud = failed[i] && sound ? listStretches(sound.pauses, end) : [];
      return (found[i] ?? loud).map(({ from, to }) => {
        const first = toFrame(from, source.rate);
        return { master: master.id, in: first, out: Math.max(first + 1, toFrame(to, source.rate)) };
      });
    });
    return toStretches(spans, timeline);
  }, [masters, found, failed, passOf, timeline]);
}

export function useCaptions(tools: WordsTools): CaptionTools {
  const { id } = useJob();
  const timeline = useTimeline();
  const cuts = useCuts(timeline);
  const spoken = useSpoken(timeline);
  const { captions } = tools.text;
  const { cues, limits } = captions;
  const listed = useMemo(() => listCues(cues, timeline), [cues, timeline]);
  const book = useFontBook();
  const { family } = captions.style;
  const judged = useMemo(
    () => ({
      limits,
      cuts,
      rate: timeline.rate,
      lacking: (text: string) => (book ? findMissingGraphemes(text, family, book) : []),
    }),
    [limits, cuts, timeline.rate, book, family],
  );
  const faults = useMemo(() => lintCues(listed, judged), [listed, judged]);
  const setCues: CaptionTools['setCues'] = (act, next, joins) =>
    dispatch(id, { type: 'set-cues', act, cues: next }, joins);
  const written = (cue: string, text: string) => withCue(cues, cue, (old) => rewordCue(old, text));
  const own = tools.canvas.text ?? PLAIN_CANVAS_TEXT;
  return {
    captions,
    timeline,
    listed,
    faults,
    cuts,
    spoken,
    way: own.captions,
    chosen: useWordsBench((state) => state.cue),
    showText: (cue, text) => tools.showCues(written(cue, text)),
    findFaults(cue, text) {
      const at = listed.findIndex((row) => row.cue.id === cue);
      // A cue is judged by itself and by the one after it.
      const [own, ...next] = listed.slice(Math.max(0, at), at + 2);
      const typed = own ? [{ ...own, cue: rewordCue(own.cue, text) }, ...next] : [];
      return lintCues(typed, judged).get(cue) ?? [];
    },
    setText: (cue, text) => setCues('write', written(cue, text), `write-${cue}`),
    setCues: setCues,
    setLook(act, change, joins) {
      const { cues: _cues, ...look } = captions;
      dispatch(id, { type: 'set-captions', act, captions: { ...look, ...change } }, joins);
    },
    setWay: (way) =>
      dispatch(id, {
        type: 'set-canvas-text',
        act: 'captions',
        canvas: tools.canvas.id,
        text: { ...own, captions: way },
      }),
    choose: (cue) => useWordsBench.setState({ cue, cuePage: null }),
  };
}
