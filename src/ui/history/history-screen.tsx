import { useRouter } from 'expo-router';
import { useEffect, useMemo, useState } from 'react';
import { Linking, StyleSheet, View } from 'react-native';
import { Button, TextInput } from 'react-native-paper';
import { bytesLabel } from '@core/figures/figures';
import { historyCsv, type HistoryRow, historyRows, matchingRows } from '@core/interchange/post-history';
import { toWhen, readTimeZone } from '@core/posting/when';
import { loadAccounts, followPosted, takePostDown, useFollowedPosts } from '@state/posting';
import { useAccountName } from '../accounts/use-account-name';
import { useRuleSheets } from '../job/use-target';
import { Mark } from '../parts/mark';
import { TroubleNotice } from '../parts/notice';
import { saveFile } from '../parts/pick-file';
import { Screen } from '../parts/screen';
import { Tool } from '../parts/tool';
import { Soft, Strong } from '../parts/words';
import { POSTED_STANDINGS, POSTED_WORDS } from '../post/post-states';
import { ServerNotice } from '../post/server-notice';
import { usePostPage } from '../post/use-post-page';
import { card, space } from '../theme/tokens';

/** Posts that are shown before more are asked for. */
const AT_ONCE = 50;

interface ShownPost extends HistoryRow {
  id: string;
}

/** Every post of this browser that the server knows of. */
function useHistory(): ShownPost[] {
  const sheets = useRuleSheets();
  const posts = useFollowedPosts((state) => state.posts);
  const accountName = useAccountName();
  return useMemo(() => {
    const names = {
      outletName: (outlet: string) => sheets.find((sheet) => sheet.outlet === outlet)?.name ?? outlet,
      accountName,
    };
    const all = Object.values(posts).sort((a, b) => b.madeAt - a.madeAt);
    return historyRows(all, names).map((row, n) => ({ ...row, id: all[n]?.id ?? '' }));
  }, [sheets, posts, accountName]);
}

/**
 * Screen of the history: what was posted where, as whom and when, searched, saved as CSV, opened there and
 * taken down.
 */
export function HistoryScreen() {
  const router = useRouter();
  const rows = useHistory();
  const heard = useFollowedPosts((state) => state.heard);
  const [search, setSearch] = useState('');
  const [shown, setShown] = useState(AT_ONCE);
  useEffect(() => followPosted(), []);
  useEffect(() => void loadAccounts(), []);
  const found = matchingRows(rows, search);
  const save = () => saveFile(new File([historyCsv(found)], 'posts.csv', { type: 'text/csv' }));
  return (
    <Screen
      title="History"
      subtitle="What was posted"
      leading={<Tool icon="arrow-left" label="All jobs" words="" onPress={() => router.dismissTo('/')} />}
    >
      <TextInput
        mode="outlined"
        dense
        label="Search"
        aria-label="Search"
        placeholder="Title, outlet, account, file, hash"
        value={search}
        onChangeText={setSearch}
      />
      <View style={styles.row}>
        <Soft role="status">
          {found.length === 1 ? '1 post' : `${found.length} posts`}
          {found.length === rows.length ? '' : ` of ${rows.length}`}
        </Soft>
        <Button icon="download" disabled={found.length === 0} onPress={save}>
          Save as CSV
        </Button>
      </View>
      <ServerNotice />
      {rows.length === 0 && heard === 'asking' && <Soft role="status">Asking the server…</Soft>}
      {rows.length === 0 && heard === 'all' && (
        <Soft>Nothing has been posted yet. Posts are made on the post page of a job.</Soft>
      )}
      {found.slice(0, shown).map((row) => (
        <Row key={row.id} row={row} />
      ))}
      {found.length > shown && (
        <Button mode="outlined" onPress={() => setShown(shown + AT_ONCE)}>
          {`Show ${Math.min(AT_ONCE, found.length - shown)} more`}
        </Button>
      )}
    </Screen>
  );
}

/** Label of the button that opens the post page of a post. */
const openWords = (state: HistoryRow['state']): string =>
  state === 'up' || state === 'down' ? 'Post again or elsewhere' : 'See it on its page';

function Row({ row }: { row: ShownPost }) {
  const { id, state, title, outlet, account, file, bytes, sha256, ordered, scheduled, up, address, reasons } =
    row;
  const trouble = useFollowedPosts(({ troubles }) => troubles[id]);
  const open = usePostPage()(id);
  const { date, time } = toWhen(new Date(up || ordered).getTime(), readTimeZone());
  return (
    <View role="article" aria-label={`${title}, ${outlet}: ${POSTED_WORDS[state]}`} style={styles.post}>
      <Mark standing={POSTED_STANDINGS[state]} />
      <View style={styles.words}>
        <Strong>{title}</Strong>
        <Soft>{`${POSTED_WORDS[state]}. ${outlet}, as ${account}, ${date} at ${time}${scheduled && !up ? `, for ${scheduled.replace('T', ' at ')}` : ''}.`}</Soft>
        {reasons !== '' && <Soft>{reasons}</Soft>}
        <Soft selectable>{`${file}, ${bytesLabel(bytes)}${sha256 === '' ? '' : `, SHA-256 ${sha256}`}`}</Soft>
        {trouble && <TroubleNotice trouble={trouble} />}
        <View style={styles.acts}>
          {open && (
            <Button
              compact
              mode="outlined"
              accessibilityLabel={`${openWords(state)}: ${title} on ${outlet}`}
              onPress={open}
            >
              {openWords(state)}
            </Button>
          )}
          {state === 'up' && (
            <>
              {address !== '' && (
                <Button
                  compact
                  mode="outlined"
                  icon="open-in-new"
                  accessibilityLabel={`See ${title} on ${outlet}`}
                  onPress={() => void Linking.openURL(address)}
                >
                  {`See it on ${outlet}`}
                </Button>
              )}
              <Button
                compact
                accessibilityLabel={`Take ${title} down from ${outlet}`}
                onPress={() => void takePostDown(id)}
              >
                Take it down
              </Button>
            </>
          )}
        </View>
      </View>
    </View>
  );
}

const styles = StyleSheet.create({
  row: { flexDirection: 'row', justifyContent: 'space-between', alignItems: 'center' },
  post: { flexDirection: 'row', gap: space.m, padding: space.m, ...card },
  words: { flex: 1, gap: space.xs },
  acts: { flexDirection: 'row', flexWrap: 'wrap', gap: space.s },
});
