import { Link } from 'expo-router';
import { useMemo } from 'react';
import { Image, Pressable, StyleSheet, View } from 'react-native';
import { rateLabel, toSeconds } from '@core/time/frame-rate';
import { dayLabel } from '@core/time/day-label';
import { lengthLabel } from '@core/time/timecode';
import { useChecks, findWorstOfJob } from '@state/check';
import type { JobListEntry } from '@state/job-list-entry';
import { useStills } from '@state/picture';
import { useNow } from '../parts/use-now';
import { Heading, Soft } from '../parts/words';
import { card, colours, space } from '../theme/tokens';
import { JobMenu } from './job-menu';
import { checkStanding, listStandings } from './job-standing';
import { StandingRow } from './standing-row';

/** Rows of the poster that stands for a job. */
export const POSTER_HEIGHT = 360;

/** Card of a job in the list: what it was made from, and where it stands. */
export function JobCard({ listed }: { listed: JobListEntry }) {
  const { id, title, poster, changedAt, clips } = listed.head;
  const { source, frame } = poster;
  const worst = useChecks(({ boards }) => findWorstOfJob(boards, id));
  const frames = useMemo(() => [frame], [frame]);
  const still = useStills(source, frames, POSTER_HEIGHT)[frame];
  const facts = [
    `${source.picture.width}×${source.picture.height}`,
    `${rateLabel(source.rate)} fps`,
    lengthLabel(toSeconds(source.frames, source.rate)),
    ...(clips > 1 ? [`${clips} clips`] : []),
  ];
  const now = useNow();
  return (
    <View role="listitem" aria-label={title} style={styles.card}>
      <Link href={`/job/${id}`} asChild>
        <Pressable style={styles.open}>
          <View style={styles.poster}>
            {still !== undefined && (
              <Image source={{ uri: still }} style={styles.image} resizeMode="contain" />
            )}
          </View>
          <View style={styles.words}>
            <Heading numberOfLines={2}>{title}</Heading>
            <Soft>{facts.join(', ')}</Soft>
            <Soft>{`Changed ${dayLabel(new Date(changedAt), now)}`}</Soft>
            <StandingRow standings={[...checkStanding(worst), ...listStandings(listed)]} />
          </View>
        </Pressable>
      </Link>
      <JobMenu listed={listed} />
    </View>
  );
}

const styles = StyleSheet.create({
  card: { flexDirection: 'row', alignItems: 'flex-start', ...card },
  open: { flex: 1, flexDirection: 'row', alignItems: 'flex-start', gap: space.m, padding: space.m },
  poster: { width: 112, height: 63, backgroundColor: colours.hairline },
  image: { width: '100%', height: '100%' },
  words: { flex: 1, gap: 2 },
});
