import { usePathname } from 'expo-router';
import { Pressable, StyleSheet, View } from 'react-native';
import { Button } from 'react-native-paper';
import { type Account, canPost } from '@core/posting/accounts';
import type { RuleSheet } from '@core/outlets/rule-sheet';
import { chooseAccount, chosenAccount, signInToOutlet, useAccounts } from '@state/posting';
import { AccountFace } from '../accounts/account-face';
import { accountTrouble } from '../accounts/account-words';
import { TroubleNotice } from '../parts/notice';
import { Heading, Soft } from '../parts/words';
import { card, colours, space } from '../theme/tokens';

/** The account that something goes out as. */
export const useChosenAccount = (outlet: string): Account | null =>
  useAccounts((state) => chosenAccount(state, outlet));

/** Chooses whom a post is of. */
export function AccountChoice({ sheet: { outlet, name } }: { sheet: RuleSheet }) {
  const here = usePathname();
  const { accounts, trouble } = useAccounts();
  const current = useChosenAccount(outlet);
  const own = accounts?.filter((account) => account.outlet === outlet) ?? [];
  return (
    <View style={styles.group}>
      <Heading>Post as</Heading>
      {trouble && <TroubleNotice trouble={trouble} />}
      <View role="radiogroup" aria-label="Post as" style={styles.group}>
        {own.map((account) => {
          const on = account.id === current?.id;
          const wrong = accountTrouble(account);
          return (
            <Pressable
              key={account.id}
              role="radio"
              aria-checked={on}
              aria-label={account.account.name}
              onPress={() => void chooseAccount(account)}
              style={[styles.account, on && styles.on]}
            >
              <AccountFace account={account} />
              {wrong !== null && <Soft style={styles.wrong}>{wrong}</Soft>}
            </Pressable>
          );
        })}
      </View>
      {own.length === 0 && accounts !== null && <Soft>{`Sign in to ${name} once to post there.`}</Soft>}
      <Button
        mode={own.some(canPost) ? 'text' : 'contained'}
        style={styles.left}
        onPress={() => void signInToOutlet({ outlet, name }, here)}
      >
        {own.length === 0
          ? `Sign in to ${name}`
          : current && !canPost(current)
            ? 'Sign in again'
            : `Use another account of ${name}`}
      </Button>
    </View>
  );
}

const styles = StyleSheet.create({
  group: { gap: space.s },
  account: { ...card, padding: space.s, borderWidth: 2, gap: space.xs },
  on: { borderColor: colours.woad, backgroundColor: colours.woadWash },
  wrong: { color: colours.madder },
  left: { alignSelf: 'flex-start' },
});
