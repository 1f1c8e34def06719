import { Image, StyleSheet, View } from 'react-native';
import { type Account, accountPicturePath } from '@core/posting/accounts';
import { Soft, Strong } from '../parts/words';
import { colours, space } from '../theme/tokens';

const SIDE = 40;
const KINDS = { person: 'a person', page: 'a page' };

/** The picture and the name of an account, so that nobody posts as the wrong one. */
export function AccountFace({ account }: { account: Account }) {
  const { name, kind, picture } = account.account;
  return (
    <View style={styles.row}>
      {picture === null ? (
        <View style={styles.picture} />
      ) : (
        <Image
          source={{ uri: accountPicturePath(account.id) }}
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
