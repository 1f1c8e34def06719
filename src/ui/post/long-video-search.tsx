import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { Button, TextInput } from 'react-native-paper';
import { LONG_VIDEOS_AT, type LongVideo } from '@core/posting/accounts';
import { secondsLabel } from '@core/figures/figures';
import { searchLongVideos } from '@state/accounts';
import { useRuleSheets } from '../job/use-target';
import { Soft } from '../parts/words';
import { space } from '../theme/tokens';
import { useLatest } from '../parts/use-latest';
import { useChosenAccount } from './account-choice';

/** Finds the long video that a clip came from, where somebody is signed in to its outlet. */
export function LongVideoSearch({ onTake }: { onTake: (address: string) => void }) {
  const account = useChosenAccount(LONG_VIDEOS_AT);
  const name = useRuleSheets().find(({ outlet }) => outlet === LONG_VIDEOS_AT)?.name ?? LONG_VIDEOS_AT;
  const [search, setSearch] = useState('');
  const [found, setFound] = useState<readonly LongVideo[] | 'down' | null>(null);
  const takeFound = useLatest<readonly LongVideo[]>(setFound);
  if (!account) return <Soft>{`Sign in to ${name} to look for it there.`}</Soft>;
  const look = () => takeFound(searchLongVideos(account.id, search)).catch(() => setFound('down'));
  return (
    <View style={styles.all}>
      <View style={styles.row}>
        <TextInput
          mode="outlined"
          dense
          label={`Search ${name}`}
          aria-label={`Search ${name}`}
          value={search}
          onChangeText={setSearch}
          onSubmitEditing={() => void look()}
          style={styles.grow}
        />
        <Button mode="outlined" onPress={() => void look()}>
          Search
        </Button>
      </View>
      {found === 'down' && <Soft role="alert">{`${name} cannot be asked now. Try again in a moment.`}</Soft>}
      {found !== 'down' &&
        found?.map(({ title, address, seconds }) => (
          <Button key={address} mode="text" style={styles.left} onPress={() => onTake(address)}>
            {`${title}, ${secondsLabel(seconds)}`}
          </Button>
        ))}
      {found !== 'down' && found?.length === 0 && (
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
