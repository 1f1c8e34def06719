import { Pressable, StyleSheet, View } from 'react-native';
import Svg, { Rect } from 'react-native-svg';
import type { Subject } from '@core/follow/subjects';
import { findTrackPoint } from '@core/follow/track';
import { fileRange } from '@core/job/follow-shot';
import { useJob } from '../job/job-context';
import { ToolRow } from '../parts/tool-row';
import { Soft, Strong } from '../parts/words';
import { colours, space, TARGET } from '../theme/tokens';
import { KIND_WORDS } from './subject-words';
import type { FollowTools } from './use-follow';

/** The strip of a subject: bars over the shot's time, the higher the surer. */
const STRIP = { width: 96, height: 14, bars: 32 };

/** The subjects of the shot, the surest first; each with when it is there. A tap follows one or lets it go. */
export function SubjectList({ follow }: { follow: FollowTools }) {
  const { subjects, followed, tap } = follow;
  return (
    <ToolRow gap={space.s}>
      {subjects.map((subject) => {
        const on = followed.includes(subject);
        const name = KIND_WORDS[subject.track.kind];
        return (
          <Pressable
            key={`${subject.number} ${subject.track.points[0]?.frame}`}
            role="button"
            aria-label={`Subject ${subject.number} ${name}${on ? ', followed' : ''}`}
            aria-pressed={on}
            onPress={() => tap(subject)}
            style={[styles.subject, on && styles.on]}
          >
            <Strong style={styles.name}>
              {subject.number} <Soft>{on ? `${name}, followed` : name}</Soft>
            </Strong>
            <Presence subject={subject} range={follow.to.shot} />
          </Pressable>
        );
      })}
    </ToolRow>
  );
}

function Presence({ subject, range }: { subject: Subject; range: FollowTools['to']['shot'] }) {
  const job = useJob();
  const { in: first, out } = fileRange(job, range);
  const bar = STRIP.width / STRIP.bars;
  return (
    <View aria-hidden>
      <Svg width={STRIP.width} height={STRIP.height}>
        {Array.from({ length: STRIP.bars }, (_, i) => {
          const sure = findTrackPoint(
            subject.track,
            first + ((i + 0.5) * (out - first)) / STRIP.bars,
          )?.confidence;
          if (sure === undefined) return null;
          const height = sure === 0 ? 2 : Math.max(4, Math.min(1, sure * 1.4) * STRIP.height);
          return (
            <Rect
              key={i}
              x={i * bar}
              y={STRIP.height - height}
              width={bar - 1}
              height={height}
              fill={colours.woad}
            />
          );
        })}
      </Svg>
    </View>
  );
}

const styles = StyleSheet.create({
  subject: {
    minHeight: TARGET,
    paddingHorizontal: space.s,
    paddingVertical: space.xs,
    justifyContent: 'center',
    borderWidth: 1,
    borderColor: colours.edge,
    borderRadius: 6,
  },
  on: { borderColor: colours.woad, backgroundColor: colours.woadWash },
  name: { fontSize: 13 },
});
