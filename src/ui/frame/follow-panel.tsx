import { useMemo, useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { Button } from 'react-native-paper';
import type { Shot } from '@core/cut/shot';
import type { Doubt } from '@core/framing/following';
import type { Framing } from '@core/framing/framing';
import { removeMotion } from '@core/framing/keyframes';
import { shotsToFollow } from '@core/job/follow-shot';
import { formatTimecode } from '@core/time/timecode';
import {
  followFramings,
  type FollowNote,
  noteKey,
  stopFollowing,
  useFramingUi,
  useFollow,
} from '@state/framing';
import { dispatch } from '@state/job';
import { player } from '@state/player';
import { useJob, useSource } from '../job/job-context';
import { TroubleNotice } from '../parts/notice';
import { StripBar } from '../parts/strip-bar';
import { Tool } from '../parts/tool';
import { ToolRow } from '../parts/tool-row';
import { Soft } from '../parts/words';
import { space } from '../theme/tokens';
import { FollowWishes } from './follow-wishes';
import { DOUBT_WORDS } from './subject-words';
import { SubjectList } from './subject-list';
import { useFollowTools } from './use-follow';
import type { FramingTools } from './use-framing';
import { useCanvasLabel } from '../job/use-target';

const NOTES: Record<FollowNote, string> = {
  nothing:
    'Nothing to follow was found in this shot. Draw a box around what matters, or set the window by hand.',
  alike: 'More than one could be meant. If it is the wrong one, tap another.',
  'no-path': 'No path was found for this shot. Change how it moves, or set the window by hand.',
  'no-window': 'This shot shows the whole picture on every canvas: there is no window to move.',
};

const STAGES = { look: 'Looking for subjects', box: 'Following your box', path: 'Finding the path' };

/** Follows the subject of a shot: found by itself, chosen by a tap, or drawn as a box. */
export function FollowPanel({ tools }: { tools: FramingTools }) {
  const job = useJob();
  const source = useSource();
  const follow = useFollowTools(tools);
  const [open, setOpen] = useState(false);
  const boxing = useFramingUi((state) => state.boxing);
  const run = useFollow(({ runs }) => runs[job.id]);
  const trouble = useFollow(({ troubles }) => troubles[job.id]);
  const note = useFollow(({ notes }) => notes[noteKey(job.id, tools.shot)]);
  const { shots, framing, shot, frame, owner, track } = tools;
  const { following } = framing;
  const { kept, untouched } = useMemo(() => shotsToFollow(job, shots, track), [job, shots, track]);
  // Where all were touched, all of them: what a person set there is gone through.
  const several = untouched.length > 0 ? untouched : kept;
  const doubts = listDoubts(framing, shot);
  const all = () =>
    void followFramings(
      job.id,
      several.map((next) => ({ shot: next, track, owner: 'shared' })),
      follow.wishes,
    );
  if (run)
    return (
      <View style={styles.group}>
        <Soft role="status">
          {`${STAGES[run.stage]}${run.left === null ? '' : `, ${Math.max(1, Math.round(run.left))} s left`}`}
        </Soft>
        <StripBar label={STAGES[run.stage]} done={run.done} total={run.total} />
        <Button onPress={() => stopFollowing(job.id)}>Stop following</Button>
      </View>
    );
  return (
    <View style={styles.group}>
      {trouble && <TroubleNotice trouble={trouble} />}
      <ToolRow>
        <Tool
          icon="target"
          label="Follow this shot"
          words="This shot"
          onPress={() => void followFramings(job.id, [{ shot, track, owner }], follow.wishes)}
        />
        <Tool
          icon="target-account"
          label={
            untouched.length > 0
              ? `Follow the ${untouched.length} untouched shots`
              : `Follow all ${kept.length} shots`
          }
          words={untouched.length > 0 ? `${untouched.length} untouched` : `All ${kept.length} shots`}
          disabled={several.length === 0}
          onPress={all}
        />
        <Tool
          icon="vector-square"
          label="Draw a box around what matters"
          words="Draw a box"
          pressed={boxing}
          onPress={() => useFramingUi.setState({ boxing: !boxing })}
        />
        <Tool
          icon="eye-arrow-right-outline"
          label="Go to the next doubtful moment"
          words="Next doubtful"
          hotkey="D"
          disabled={doubts.length === 0}
          onPress={() => showDoubt(doubts, frame)}
        />
        <Tool
          icon="tune-variant"
          label="Change how it moves"
          words="How"
          pressed={open}
          onPress={() => setOpen(!open)}
        />
        <Tool
          icon="pin-outline"
          label="Keep this framing for the whole shot"
          words="Keep"
          disabled={framing.keyframes.length < 2}
          onPress={() => tools.keep('still', removeMotion(framing, frame))}
        />
      </ToolRow>
      {boxing && <Soft>Drag on the master, around what is to be followed.</Soft>}
      {note && <Soft role="status">{NOTES[note]}</Soft>}
      {note === 'nothing' && follow.onBusy && (
        <Button style={styles.left} onPress={() => tools.keep('follow', follow.onBusy as Framing)}>
          Keep most of what moves in view
        </Button>
      )}
      <Doubts
        doubts={doubts}
        frame={frame}
        rate={source.rate}
        preferred={follow.followed[0]?.number ?? null}
      />
      <Unserved ids={following?.unserved ?? []} shot={shot} />
      {follow.subjects.length > 0 && <SubjectList follow={follow} />}
      {open && <FollowWishes follow={follow} />}
    </View>
  );
}

/** Shows the next moment that needs a look, and from the last the first again. */
export function showDoubt(doubts: readonly Doubt[], frame: number): void {
  const next = doubts.find((doubt) => doubt.in > frame) ?? doubts[0];
  if (next) player.showFrame(next.in);
}

/** Moments of a shot that need a look: a shot that was divided since keeps its own. */
export const listDoubts = ({ following }: Framing, shot: Shot): Doubt[] =>
  (following?.doubts ?? []).filter((doubt) => doubt.in < shot.out && doubt.out > shot.in);

function Doubts({
  doubts,
  frame,
  rate,
  preferred,
}: {
  doubts: readonly Doubt[];
  frame: number;
  /** The number of the subject that is held where not all can be. */
  preferred: number | null;
  rate: Parameters<typeof formatTimecode>[1];
}) {
  if (doubts.length === 0) return null;
  const here = doubts.find((doubt) => frame >= doubt.in && frame < doubt.out);
  const words = here
    ? `Here ${DOUBT_WORDS[here.why]}${here.why === 'apart' && preferred !== null ? `: number ${preferred} is held` : ''}, until ${formatTimecode(here.out - 1, rate)}.`
    : `${doubts.length === 1 ? 'One moment needs' : `${doubts.length} moments need`} a look; the first is at ${formatTimecode(doubts[0]?.in ?? 0, rate)}.`;
  return <Soft role="status">{words}</Soft>;
}

/** Canvases that are too narrow for the path: each can frame the shot by itself. */
function Unserved({ ids, shot }: { ids: readonly string[]; shot: FramingTools['shot'] }) {
  const job = useJob();
  const labelOf = useCanvasLabel();
  return job.edit.clips
    .find(({ id }) => id === job.edit.clip)
    ?.canvases.filter(
      ({ id, detached }) => ids.includes(id) && !detached.some((framing) => framing.shot === shot.id),
    )
    .map((canvas) => (
      <View key={canvas.id} style={styles.line}>
        <Soft style={styles.grow}>{`${labelOf(canvas)} is too narrow for all of them.`}</Soft>
        <Button
          onPress={() =>
            dispatch(job.id, { type: 'detach', canvas: canvas.id, shot: { id: shot.id, in: shot.in } })
          }
        >{`Frame ${labelOf(canvas)} by itself`}</Button>
      </View>
    ));
}

const styles = StyleSheet.create({
  group: { gap: space.s },
  line: { flexDirection: 'row', alignItems: 'center', gap: space.s },
  grow: { flex: 1 },
  left: { alignSelf: 'flex-start' },
});
