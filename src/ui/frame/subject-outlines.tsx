import { Pressable, StyleSheet, Text, View } from 'react-native';
import { findSubjectBox } from '@core/job/follow-shot';
import { useFollow } from '@state/framing';
import { useJob } from '../job/job-context';
import { colours, fonts, sizes } from '../theme/tokens';
import { KIND_WORDS } from './subject-words';
import { useFollowTools } from './use-follow';
import type { FramingTools } from './use-framing';

/** A subject is at least so large to the finger, in pixels. */
const MIN_TARGET = 32;

/** The subjects of the shot, outlined where they are at the playhead; a tap follows one or lets it go. */
export function SubjectOutlines({
  tools,
  width,
  height,
}: {
  tools: FramingTools;
  width: number;
  height: number;
}) {
  const job = useJob();
  const { subjects, followed, tap } = useFollowTools(tools);
  const busy = useFollow(({ runs }) => runs[job.id] !== undefined);
  return (
    <View style={[styles.area, { width, height }]} pointerEvents="box-none">
      {subjects.map((subject) => {
        const point = findSubjectBox(job, tools.shot, subject, tools.frame);
        if (!point) return null;
        const on = followed.includes(subject);
        const { x, y } = point.box;
        const size = {
          width: Math.max(MIN_TARGET, point.box.width * width),
          height: Math.max(MIN_TARGET, point.box.height * height),
        };
        const middle = { x: (x + point.box.width / 2) * width, y: (y + point.box.height / 2) * height };
        return (
          <Pressable
            key={`${subject.number} ${subject.track.points[0]?.frame}`}
            role="button"
            aria-label={`Subject ${subject.number} on the picture, ${KIND_WORDS[subject.track.kind]}`}
            aria-pressed={on}
            disabled={busy}
            onPress={() => tap(subject)}
            style={[
              styles.box,
              on && styles.on,
              point.confidence === 0 && styles.hidden,
              { left: middle.x - size.width / 2, top: middle.y - size.height / 2, ...size },
            ]}
          >
            <View style={[styles.tag, on && styles.tagOn]}>
              <Text style={[styles.number, on && styles.numberOn]}>{subject.number}</Text>
            </View>
          </Pressable>
        );
      })}
    </View>
  );
}

const styles = StyleSheet.create({
  area: { position: 'absolute', left: 0, top: 0, overflow: 'hidden' },
  box: { position: 'absolute', borderWidth: 2, borderColor: colours.chalk, borderStyle: 'dotted' },
  on: { borderStyle: 'solid', borderColor: colours.weld, borderWidth: 3 },
  hidden: { opacity: 0.5 },
  tag: { alignSelf: 'flex-start', paddingHorizontal: 5, backgroundColor: colours.sheet },
  tagOn: { backgroundColor: colours.weld },
  number: { fontFamily: fonts.strong, fontSize: sizes.small, color: colours.ink },
  numberOn: { color: colours.onDye },
});
