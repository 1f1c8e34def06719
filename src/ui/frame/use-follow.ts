import { useEffect, useMemo } from 'react';
import { createEvidence } from '@core/follow/evidence';
import type { Subject } from '@core/follow/subjects';
import type { FollowOptions } from '@core/framing/following';
import type { Framing } from '@core/framing/framing';
import { removeMotion } from '@core/framing/keyframes';
import {
  listFollowedSubjects,
  type FramingToFollow,
  placeOnBusyPart,
  listShotSubjects,
} from '@core/job/follow-shot';
import { followFramings, loadEvidence, useFramingUi, useEvidence } from '@state/framing';
import { useJob } from '../job/job-context';
import type { FramingTools } from './use-framing';

/** Subjects of the shot at hand, and the ways to follow them. */
export interface FollowTools {
  subjects: readonly Subject[];
  followed: readonly Subject[];
  wishes: FollowOptions;
  to: FramingToFollow;
  /** The framing that stays where most of what moves is; null where nothing was seen to move. */
  onBusy: Framing | null;
  /** Follows another subject, one more, or lets one go. */
  tap(subject: Subject): void;
  /** Moves otherwise; what is followed already is worked out anew. */
  wish(wishes: Partial<FollowOptions>): void;
}

export function useFollowTools(tools: FramingTools): FollowTools {
  const job = useJob();
  const { shot, track, owner, framing, frame } = tools;
  const master = job.masters.find(({ id }) => id === shot.master);
  const fingerprint = master?.fingerprint ?? '';
  const evidence = useEvidence((all) => all[fingerprint]);
  const standing = useFramingUi((state) => state.wishes);
  const chosen = useFramingUi((state) => state.chosen);
  useEffect(() => {
    if (fingerprint !== '') void loadEvidence({ fingerprint });
  }, [fingerprint]);
  const { edit, masters } = job;
  const subjects = useMemo(
    () => (master ? listShotSubjects({ edit, masters }, shot, evidence ?? createEvidence(fingerprint)) : []),
    [edit, masters, shot, evidence, fingerprint, master],
  );
  const { following } = framing;
  const followed = useMemo(
    () => (following ? listFollowedSubjects(subjects, following) : []),
    [following, subjects],
  );
  const key = [job.id, shot.id, track, owner === 'shared' ? '' : owner.canvas].join(' ');
  const wishes = following?.wishes ?? standing;
  const to = useMemo(() => ({ shot, track, owner }), [shot, track, owner]);
  const onBusy = useMemo(
    () => (evidence ? placeOnBusyPart({ edit, masters }, to, evidence) : null),
    [edit, masters, to, evidence],
  );
  const follow = (next: readonly Subject[]) => {
    if (next.length === 0) return tools.keep('still', removeMotion(framing, frame));
    void followFramings(job.id, [to], wishes, (known) =>
      next.flatMap((subject) => reuseEqual(known, subject)),
    );
  };
  return {
    ...{ subjects, followed, wishes, to, onBusy },
    tap(subject) {
      if (followed.includes(subject)) return follow(followed.filter((other) => other !== subject));
      // The first tap says whom instead of the one that was found; after that each adds one.
      follow(chosen.includes(key) ? [...followed, subject] : [subject]);
      useFramingUi.setState({ chosen: [...chosen, key] });
    },
    wish(change) {
      const next = { ...wishes, ...change };
      useFramingUi.setState({ wishes: next });
      if (following) void followFramings(job.id, [to], next);
    },
  };
}

const reuseEqual = (known: readonly Subject[], { track }: Subject): Subject[] =>
  known.filter((other) => other.track === track || JSON.stringify(other.track) === JSON.stringify(track));
