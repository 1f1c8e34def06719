import { StyleSheet, View } from 'react-native';
import { Button } from 'react-native-paper';
import { durationLabel } from '@core/figures/figures';
import { findNextFreeTime, isTooNear } from '@core/posting/gaps';
import { toTimestamp, type PostTime, toWhen, readTimeZone } from '@core/posting/when';
import type { Account } from '@core/posting/accounts';
import { gap, useFollowedPosts } from '@state/posting';
import { useNow } from '../parts/use-now';
import { Soft } from '../parts/words';
import { space } from '../theme/tokens';
import { usePlanned } from './use-planned';

const MINUTE = 60_000;

interface Props {
  /** The post that is changed; nothing for a new one. */
  id?: string;
  account: Account;
  when: PostTime | null;
  onTake: (when: PostTime) => void;
}

/** Says where a post comes too soon before or after another of its account, and offers the next time that does not. */
export function GapHint({ id = '', account, when, onTake }: Props) {
  const all = usePlanned();
  const hours = gap.use((state) => state.value);
  const titles = useFollowedPosts((state) => state.posts);
  const now = useNow().getTime();
  const planned = { id, account: account.id, moment: when === null ? now : toTimestamp(when) };
  const near = isTooNear(planned, all, hours);
  if (!near) return null;
  const zone = when?.zone ?? readTimeZone();
  // A time has no seconds: the next whole minute.
  const free = toWhen(Math.ceil(findNextFreeTime(planned, all, hours) / MINUTE) * MINUTE, zone);
  const distance = durationLabel(Math.abs(near.moment - planned.moment) / 1000);
  const order = near.moment <= planned.moment ? 'after' : 'before';
  return (
    <View style={styles.hint}>
      <Soft role="status">
        {`Only ${distance} ${order} “${titles[near.id]?.words.title ?? ''}” as ${account.account.name}. You leave ${hours} h between posts of an account.`}
      </Soft>
      <Button mode="outlined" style={styles.left} onPress={() => onTake(free)}>
        {`Take ${free.date} at ${free.time}`}
      </Button>
    </View>
  );
}

const styles = StyleSheet.create({ hint: { gap: space.s }, left: { alignSelf: 'flex-start' } });
