import { Link } from 'expo-router';
import { useMemo, useState } from 'react';
import { Image, Pressable, StyleSheet, View } from 'react-native';
import { Button, Dialog, Portal } from 'react-native-paper';
import { activeClip, type Job, mainMaster, sourceIn } from '@core/job/job';
import type { Source } from '@core/master/source';
import { rateLabel, secondsOf } from '@core/time/frame-rate';
import { lengthLabel } from '@core/time/timecode';
import { deleteWholeJob } from '@state/delete-job';
import { useStills } from '@state/stills';
import { Tool } from '../parts/tool';
import { Body, Heading, Soft } from '../parts/words';
import { colours, space, card } from '../theme/tokens';

/** Rows of the poster that stands for a job. */
export const POSTER_HEIGHT = 360;

/** The frame that stands for a job: a little into what is kept, past any fade in. */
export function posterOf(job: Job): { source: Source; frame: number } {
  const [range] = activeClip(job.edit).cut;
  const source = sourceIn(job, range?.master ?? mainMaster(job).id);
  const span = range ?? { in: 0, out: source.frames };
  return { source, frame: Math.min(source.frames - 1, Math.floor(span.in + (span.out - span.in) * 0.2)) };
}

/** One job of the list. */
export function JobCard({ job }: { job: Job }) {
  const [asking, setAsking] = useState(false);
  const { source, frame } = posterOf(job);
  const frames = useMemo(() => [frame], [frame]);
  const poster = useStills(source, frames, POSTER_HEIGHT)[frame];
  const facts = `${source.picture.width}×${source.picture.height}, ${rateLabel(source.rate)} fps, ${lengthLabel(secondsOf(source.frames, source.rate))}`;
  return (
    <View style={styles.card}>
      <Link href={`/job/${job.id}`} asChild>
        <Pressable aria-label={`Open ${job.title}`} style={styles.open}>
          <View style={styles.poster}>
            {poster !== undefined && (
              <Image source={{ uri: poster }} style={styles.image} resizeMode="contain" />
            )}
          </View>
          <View style={styles.words}>
            <Heading>{job.title}</Heading>
            <Soft>{facts}</Soft>
          </View>
        </Pressable>
      </Link>
      <Tool icon="trash-can-outline" label={`Delete ${job.title}`} words="" onPress={() => setAsking(true)} />
      <Portal>
        <Dialog visible={asking} onDismiss={() => setAsking(false)}>
          <Dialog.Title>Delete this job?</Dialog.Title>
          <Dialog.Content>
            <Body>{job.title}, its exports and its copies of masters leave this browser. Posts stay up.</Body>
          </Dialog.Content>
          <Dialog.Actions>
            <Button onPress={() => setAsking(false)}>Keep it</Button>
            <Button textColor={colours.madder} onPress={() => void deleteWholeJob(job)}>
              Delete it
            </Button>
          </Dialog.Actions>
        </Dialog>
      </Portal>
    </View>
  );
}

const styles = StyleSheet.create({
  card: {
    flexDirection: 'row',
    alignItems: 'center',
    ...card,
  },
  open: { flex: 1, flexDirection: 'row', alignItems: 'center', gap: space.m, padding: space.m },
  poster: { width: 112, height: 63, backgroundColor: colours.hairline },
  image: { width: '100%', height: '100%' },
  words: { flex: 1 },
});
