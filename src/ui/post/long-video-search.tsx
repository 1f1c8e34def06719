import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { Button, TextInput } from 'react-native-paper';
import { type Account, type LongVideo, canRead } from '@core/posting/accounts';
import { secondsLabel } from '@core/figures/figures';
import { searchLongVideos, useAccounts } from '@state/posting';
import { useRuleSheets } from '../job/use-target';
import { Soft } from '../parts/words';
import { space } from '../theme/tokens';
import { useLatest } from '../parts/use-latest';
import { useAllAbilities } from './outlet-abilities';

/** An outlet whose long videos can be searched as somebody. */
interface SearchResult {
  name: string;
  account: Account;
}

/** Videos that a search found, and outlets that did not answer. */
interface FoundVideos {
  videos: readonly (LongVideo & { outletName: string })[];
  down: readonly string[];
}

async function searchAll(outlets: readonly SearchResult[], search: string): Promise<FoundVideos> {
  const answers = await Promise.allSettled(
    outlets.map(({ account }) => searchLongVideos(account.id, search)),
  );
  return {
    videos: answers.flatMap((answer, i) =>
      answer.status === 'fulfilled'
        ? answer.value.map((video) => ({ ...video, outletName: outlets[i]!.name }))
        : [],
    ),
    down: answers.flatMap((answer, i) => (answer.status === 'rejected' ? [outlets[i]!.name] : [])),
  };
}

/** Finds the long video that a clip came from, at every outlet that has some and where somebody is signed in. */
export function LongVideoSearch({ onTake }: { onTake: (address: string) => void }) {
  const sheets = useRuleSheets();
  const abilities = useAllAbilities(sheets.map(({ outlet }) => outlet));
  const accounts = useAccounts((state) => state.accounts);
  const [search, setSearch] = useState('');
  const [found, setFound] = useState<FoundVideos | null>(null);
  const takeFound = useLatest<FoundVideos>(setFound);
  const having = sheets.filter(({ outlet }) => abilities.get(outlet)?.longVideos);
  const searched = having.flatMap(({ outlet, name }): SearchResult[] => {
    const account = accounts?.find((one) => one.outlet === outlet && canRead(one));
    return account ? [{ name, account }] : [];
  });
  if (having.length === 0) return null;
  if (searched.length === 0)
    return <Soft>{`Sign in to ${having.map(({ name }) => name).join(' or ')} to look for it there.`}</Soft>;
  const label = `Search ${searched.map(({ name }) => name).join(' and ')}`;
  const look = () => takeFound(searchAll(searched, search));
  return (
    <View style={styles.all}>
      <View style={styles.row}>
        <TextInput
          mode="outlined"
          dense
          label={label}
          aria-label={label}
          value={search}
          onChangeText={setSearch}
          onSubmitEditing={() => void look()}
          style={styles.grow}
        />
        <Button mode="outlined" onPress={() => void look()}>
          Search
        </Button>
      </View>
      {found?.down.map((name) => (
        <Soft key={name} role="alert">{`${name} cannot be asked now. Try again in a moment.`}</Soft>
      ))}
      {found?.videos.map(({ title, address, seconds, outletName }) => (
        <Button key={address} mode="text" style={styles.left} onPress={() => onTake(address)}>
          {[title, secondsLabel(seconds), ...(searched.length > 1 ? [outletName] : [])].join(', ')}
        </Button>
      ))}
      {found?.videos.length === 0 && found.down.length === 0 && (
        <Soft>No long video has all of these words in its title.</Soft>
      )}
    </View>
  );
}

const styles = StyleSheet.create({
  all: { gap: space.s },
  row: { flexDirection: 'row', gap: space.s, alignItems: 'center' },
  grow: { flex: 1 },
  left: { alignSelf: 'flex-start' },
});
