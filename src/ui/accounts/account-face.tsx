import { Image, StyleSheet, View } from 'react-native';
import type { Account } from '@core/posting/accounts';
import { Soft, Strong } from '../parts/words';
import { colours, space } from '../theme/tokens';

const SIDE = 40;
const KINDS = { person: 'a person', page: 'a page' };

/** Where an account's picture is, from the server's root. */
const pictureOf = ({ outlet, account }: Account): string | null =>
  account.picture === null ? null : `/outlets/${outlet}${account.picture}`;

/** The picture and the name of an account, so that nobody posts as the wrong one. */
export function AccountFace({ account }: { account: Account }) {
  const { name, kind } = account.account;
  const picture = pictureOf(account);
  return (
    <View style={styles.row}>
      {picture === null ? (
        <View style={styles.picture} />
      ) : (
        <Image
          source={{ uri: picture }}
          accessibilityIgnoresInvertColors
          style={styles.picture}
          aria-hidden
        />
      )}
      <View style={styles.words}>
        <Strong>{name}</Strong>
        <Soft>{KINDS[kind]}</Soft>
      </View>
    </View>
  );
}

const styles = StyleSheet.create({
  row: { flexDirection: 'row', alignItems: 'center', gap: space.m, flexShrink: 1 },
  picture: { width: SIDE, height: SIDE, borderRadius: 6, backgroundColor: colours.paper },
  words: { flexShrink: 1 },
});
