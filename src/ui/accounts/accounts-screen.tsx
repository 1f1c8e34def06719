import { useLocalSearchParams, useRouter } from 'expo-router';
import { useEffect, useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { Button } from 'react-native-paper';
import { type Account, ACCOUNTS_PAGE, signInFaultSchema } from '@core/posting/accounts';
import { forgetAccount, loadAccounts, signInToOutlet, useAccounts } from '@state/posting';
import { useRuleSheets } from '../job/use-target';
import { Notice, TroubleNotice } from '../parts/notice';
import { Screen } from '../parts/screen';
import { Tool } from '../parts/tool';
import { Heading, Soft } from '../parts/words';
import { card, space } from '../theme/tokens';
import { AccountFace } from './account-face';
import { accountTrouble, SIGN_IN_FAULTS } from './account-words';

/** Accounts at outlets: who this browser may post as, signing in, and letting go. */
export function AccountsScreen() {
  const router = useRouter();
  const sheets = useRuleSheets();
  const { accounts, trouble } = useAccounts();
  const { fault } = useLocalSearchParams<{ fault?: string }>();
  const [leaving, setLeaving] = useState<Account | null>(null);
  useEffect(() => void loadAccounts(), []);
  const read = signInFaultSchema.safeParse(fault);
  return (
    <Screen
      title="Accounts"
      subtitle="Who you post as"
      leading={<Tool icon="arrow-left" label="All jobs" words="" onPress={() => router.dismissTo('/')} />}
      tray={
        leaving ? (
          <>
            <Soft>
              {`Posts that wait for ${leaving.account.name} are held until you choose another account. What is up stays up.`}
            </Soft>
            <Button
              mode="contained"
              contentStyle={styles.act}
              onPress={() => void forgetAccount(leaving.id).then(() => setLeaving(null))}
            >
              {`Remove ${leaving.account.name}`}
            </Button>
            <Button onPress={() => setLeaving(null)}>Keep it</Button>
          </>
        ) : undefined
      }
    >
      {read.success && (
        <Notice standing="stop" title={SIGN_IN_FAULTS[read.data].what}>
          {SIGN_IN_FAULTS[read.data].todo}
        </Notice>
      )}
      {trouble && <TroubleNotice trouble={trouble} />}
      <Soft>
        You sign in on the outlet’s own page; Gusset never sees your password. What it is given to post with
        stays on the server, encrypted.
      </Soft>
      {sheets.map(({ outlet, name }) => {
        const own = accounts?.filter((account) => account.outlet === outlet) ?? [];
        return (
          <View key={outlet} style={styles.outlet} role="group" aria-label={name}>
            <Heading>{name}</Heading>
            {accounts !== null && own.length === 0 && <Soft>No account yet.</Soft>}
            {own.map((account) => (
              <Row key={account.id} account={account} name={name} onLeave={() => setLeaving(account)} />
            ))}
            <Button
              mode="outlined"
              style={styles.left}
              onPress={() => void signInToOutlet({ outlet, name }, ACCOUNTS_PAGE)}
            >
              {own.length === 0 ? `Sign in to ${name}` : `Add an account of ${name}`}
            </Button>
          </View>
        );
      })}
    </Screen>
  );
}

/** @param name of the outlet. */
function Row({ account, name, onLeave }: { account: Account; name: string; onLeave: () => void }) {
  const wrong = accountTrouble(account);
  const { outlet } = account;
  return (
    <View style={styles.row}>
      <View style={styles.head}>
        <AccountFace account={account} />
        <Button accessibilityLabel={`Remove ${account.account.name}`} onPress={onLeave}>
          Remove
        </Button>
      </View>
      {wrong !== null && (
        <Notice
          standing="stop"
          title={wrong}
          actions={
            <Button mode="contained" onPress={() => void signInToOutlet({ outlet, name }, ACCOUNTS_PAGE)}>
              Sign in again
            </Button>
          }
        >
          Its posts are kept, and go out once you have signed in.
        </Notice>
      )}
    </View>
  );
}

const styles = StyleSheet.create({
  act: { minHeight: 52 },
  outlet: { ...card, padding: space.m, gap: space.m },
  row: { gap: space.s },
  head: { flexDirection: 'row', justifyContent: 'space-between', alignItems: 'center', gap: space.s },
  left: { alignSelf: 'flex-start' },
});
