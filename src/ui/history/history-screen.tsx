import { useRouter } from 'expo-router';
import { useEffect, useMemo, useState } from 'react';
import { Linking, StyleSheet, View } from 'react-native';
import { Button, TextInput } from 'react-native-paper';
import { bytesLabel } from '@core/figures/figures';
import { historyCsv, type HistoryRow, historyRows, matchingRows } from '@core/interchange/post-history';
import { loadAccounts, useAccounts } from '@state/accounts';
import { useJobs } from '@state/jobs';
import { followPosted, takePostDown, usePosted } from '@state/posted';
import { useRuleSheets } from '../job/use-target';
import { Mark, type Standing } from '../parts/mark';
import { TroubleNotice } from '../parts/notice';
import { saveFile } from '../parts/pick-file';
import { Screen } from '../parts/screen';
import { Tool } from '../parts/tool';
import { Soft, Strong } from '../parts/words';
import { card, space } from '../theme/tokens';

interface Shown extends HistoryRow {
  id: string;
}

const STANDINGS: Record<HistoryRow['state'], Standing> = {
  ...{ up: 'pass', waiting: 'open', sending: 'open', processing: 'open', down: 'open' },
  ...{ refused: 'stop', failed: 'stop', held: 'stop', missed: 'stop' },
};
const STATES: Record<HistoryRow['state'], string> = {
  ...{ up: 'Up', waiting: 'Waits', sending: 'On its way', processing: 'Being processed', down: 'Taken down' },
  ...{ refused: 'Refused', failed: 'Came to nothing', held: 'Needs you', missed: 'Missed its time' },
};

/** Every post of this browser that the server knows of. */
function useHistory(): Shown[] {
  const sheets = useRuleSheets();
  const posts = usePosted((state) => state.posts);
  const accounts = useAccounts((state) => state.accounts);
  const listed = useJobs((state) => state.listed);
  return useMemo(() => {
    const noted = new Map(
      Object.values(listed).flatMap(({ posts: own }) => own.map(({ id, account }) => [id, account] as const)),
    );
    const names = {
      outletName: (outlet: string) => sheets.find((sheet) => sheet.outlet === outlet)?.name ?? outlet,
      accountName: (id: string, post: string) =>
        accounts?.find((account) => account.id === id)?.account.name ??
        noted.get(post) ??
        'an account that was removed',
    };
    const all = Object.values(posts).sort((a, b) => b.madeAt - a.madeAt);
    return historyRows(all, names).map((row, n) => ({ ...row, id: all[n]?.id ?? '' }));
  }, [sheets, posts, accounts, listed]);
}

/** What was posted where, as whom and when: searched, saved as CSV, seen there and taken down. */
export function HistoryScreen() {
  const router = useRouter();
  const rows = useHistory();
  const [search, setSearch] = useState('');
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
      {rows.length === 0 && (
        <Soft>Nothing has been posted yet. Posts are made on the post page of a job.</Soft>
      )}
      {found.map((row) => (
        <Row key={row.id} row={row} />
      ))}
    </Screen>
  );
}

function Row({ row }: { row: Shown }) {
  const { id, state, title, outlet, account, file, bytes, sha256, ordered, scheduled, up, address, reasons } =
    row;
  const trouble = usePosted(({ troubles }) => troubles[id]);
  const at = new Date(up || ordered).toLocaleString();
  return (
    <View role="article" aria-label={`${title}, ${outlet}: ${STATES[state]}`} style={styles.post}>
      <Mark standing={STANDINGS[state]} />
      <View style={styles.words}>
        <Strong>{title}</Strong>
        <Soft>{`${STATES[state]}. ${outlet}, as ${account}, ${at}${scheduled && !up ? `, for ${scheduled.replace('T', ' at ')}` : ''}.`}</Soft>
        {reasons !== '' && <Soft>{reasons}</Soft>}
        <Soft selectable>{`${file}, ${bytesLabel(bytes)}${sha256 === '' ? '' : `, SHA-256 ${sha256}`}`}</Soft>
        {trouble && <TroubleNotice trouble={trouble} />}
        {state === 'up' && (
          <View style={styles.acts}>
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
          </View>
        )}
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
