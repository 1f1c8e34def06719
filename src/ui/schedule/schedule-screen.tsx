import { useRouter } from 'expo-router';
import { useEffect, useState } from 'react';
import { StyleSheet, useWindowDimensions, View } from 'react-native';
import { Button } from 'react-native-paper';
import { type Gap, GAPS, isTooNear } from '@core/posting/gaps';
import type { DispatchedPost } from '@core/posting/post-order';
import { type Day, listWeekDays } from '@core/posting/week';
import { readTimeZone } from '@core/posting/when';
import { loadAccounts, followPosted, useFollowedPosts, gap } from '@state/posting';
import { useAccountName } from '../accounts/use-account-name';
import { useRuleSheets } from '../job/use-target';
import { Choice } from '../parts/choice';
import { Mark } from '../parts/mark';
import { Screen } from '../parts/screen';
import { Tool } from '../parts/tool';
import { useNow } from '../parts/use-now';
import { Heading, Soft, Strong } from '../parts/words';
import { POSTED_STANDINGS, POSTED_WORDS, whenWords } from '../post/post-states';
import { ServerNotice } from '../post/server-notice';
import { findPostTime, usePlanned } from '../post/use-planned';
import { usePostPage } from '../post/use-post-page';
import { card, colours, space, WIDE } from '../theme/tokens';

const GAP_OPTIONS = GAPS.map((value) => ({ value, label: value === '0' ? 'None' : `${value} h` }));
const clock = (moment: number): string =>
  new Date(moment).toLocaleTimeString('en-GB', { hour: '2-digit', minute: '2-digit', hourCycle: 'h23' });
const dayWords = (moment: number): string =>
  new Date(moment).toLocaleDateString('en-GB', { weekday: 'long', day: 'numeric', month: 'long' });
const weekWords = (days: readonly Day[]): string => {
  const day = (moment = 0) => new Date(moment).toLocaleDateString('en-GB', { day: 'numeric', month: 'long' });
  return `${day(days[0]?.from)} to ${day(days[6]?.from)}`;
};

/** A week: what is up, what waits for its time, and what comes too close to another of its account. */
export function ScheduleScreen() {
  const router = useRouter();
  const wide = useWindowDimensions().width >= WIDE;
  const [later, setLater] = useState(0);
  const now = useNow().getTime();
  const hours = gap.use((state) => state.value);
  const days = listWeekDays(now, readTimeZone(), later);
  useEffect(() => followPosted(), []);
  useEffect(() => void loadAccounts(), []);
  return (
    <Screen
      title="Schedule"
      subtitle={weekWords(days)}
      leading={<Tool icon="arrow-left" label="All jobs" words="" onPress={() => router.dismissTo('/')} />}
      trailing={
        <>
          <Tool icon="chevron-left" label="The week before" words="" onPress={() => setLater(later - 1)} />
          <Tool icon="chevron-right" label="The week after" words="" onPress={() => setLater(later + 1)} />
        </>
      }
    >
      <ServerNotice />
      <View style={styles.gap}>
        <Soft>Leave between posts of an account</Soft>
        <Choice<Gap>
          label="Leave between posts of an account"
          value={hours}
          options={GAP_OPTIONS}
          onChange={gap.choose}
        />
      </View>
      {later !== 0 && (
        <Button style={styles.left} onPress={() => setLater(0)}>
          This week
        </Button>
      )}
      <View style={wide && styles.week}>
        {days.map((day) => (
          <DayOfWeek key={day.from} day={day} isToday={day.from <= now && now < day.to} wide={wide} />
        ))}
      </View>
      <Soft>{`Times are of this device’s clock (${readTimeZone().replaceAll('_', ' ')}).`}</Soft>
    </Screen>
  );
}

function DayOfWeek({ day, isToday, wide }: { day: Day; isToday: boolean; wide: boolean }) {
  const { posts, heard } = useFollowedPosts();
  const own = Object.values(posts)
    .map((post) => ({ post, moment: findPostTime(post) }))
    .filter((one): one is { post: DispatchedPost; moment: number } => one.moment !== null)
    .filter(({ moment }) => day.from <= moment && moment < day.to)
    .sort((a, b) => a.moment - b.moment);
  return (
    <View role="group" aria-label={dayWords(day.from)} style={[styles.day, wide && styles.column]}>
      <Heading style={isToday && styles.today}>{`${dayWords(day.from)}${isToday ? ', today' : ''}`}</Heading>
      {own.length === 0 && heard === 'all' && <Soft>Nothing</Soft>}
      {own.map(({ post, moment }) => (
        <Planned key={post.id} post={post} moment={moment} />
      ))}
    </View>
  );
}

function Planned({ post, moment }: { post: DispatchedPost; moment: number }) {
  const { id, outlet, account, state, when, words } = post;
  const sheets = useRuleSheets();
  const nameOf = useAccountName();
  const open = usePostPage()(id);
  const all = usePlanned();
  const hours = gap.use((stored) => stored.value);
  const near = isTooNear({ id, account, moment }, all, hours);
  const act = state === 'waiting' ? 'Change it' : 'Open';
  const place = sheets.find((sheet) => sheet.outlet === outlet)?.name ?? outlet;
  return (
    <View role="article" aria-label={`${clock(moment)} ${words.title}`} style={styles.post}>
      <Mark standing={POSTED_STANDINGS[state]} />
      <View style={styles.words}>
        <Strong>{`${clock(moment)}  ${words.title}`}</Strong>
        <Soft>{`${POSTED_WORDS[state]}. ${place}, as ${nameOf(account, id)}.`}</Soft>
        {when !== null && when.zone !== readTimeZone() && <Soft>{`Set for ${whenWords(when)}.`}</Soft>}
        {near && <Soft style={styles.near}>{`Less than ${hours} h from another post of this account.`}</Soft>}
        {open && (
          <Button
            compact
            mode="outlined"
            style={styles.left}
            accessibilityLabel={`${act}: ${words.title}`}
            onPress={open}
          >
            {act}
          </Button>
        )}
      </View>
    </View>
  );
}

const styles = StyleSheet.create({
  gap: { gap: space.xs },
  left: { alignSelf: 'flex-start' },
  week: { flexDirection: 'row', gap: space.s, alignItems: 'stretch' },
  day: { gap: space.s, paddingVertical: space.s, borderTopWidth: 1, borderColor: colours.hairline },
  column: { flex: 1, minWidth: 0 },
  today: { color: colours.woad },
  post: { flexDirection: 'row', gap: space.s, padding: space.s, ...card },
  words: { flex: 1, gap: space.xs },
  near: { color: colours.madder },
});
