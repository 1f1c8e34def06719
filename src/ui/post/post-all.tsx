import { StyleSheet } from 'react-native';
import { Button } from 'react-native-paper';
import { listReadyExports } from '@core/check/post-check';
import { findTarget } from '@core/outlets/outlets';
import { canPost } from '@core/posting/accounts';
import type { PostTime } from '@core/posting/when';
import { chosenAccount, useAccounts, sendPost, useSendings } from '@state/posting';
import { useJob } from '../job/job-context';
import { useRuleSheets } from '../job/use-target';
import { Soft } from '../parts/words';

/** Sends every canvas of the clip that is ready, each as the account that is chosen for its outlet. */
export function PostAll({ when }: { when: PostTime | null }) {
  const job = useJob();
  const sheets = useRuleSheets();
  const accounts = useAccounts();
  const sending = useSendings((state) => state.sending);
  const ready = listReadyExports(job, sheets)
    .filter(({ id }) => !(id in sending))
    .map((record) => {
      const { sheet } = findTarget(sheets, record);
      return { record, sheet, account: chosenAccount(accounts, sheet.outlet) };
    });
  if (ready.length < 2) return null;
  const able = ready.flatMap((one) =>
    one.account && canPost(one.account) ? [{ ...one, account: one.account }] : [],
  );
  const missing = new Set(
    ready.filter(({ account }) => !account || !canPost(account)).map(({ sheet }) => sheet.name),
  );
  const who = able.map(({ sheet, account }) => `${sheet.name} as ${account.account.name}`).join(', ');
  return (
    <>
      {able.length > 0 && (
        <Button
          mode="outlined"
          icon="send-outline"
          style={styles.left}
          onPress={() => {
            for (const { record, account } of able) void sendPost(job, record, { account, when });
          }}
        >
          {`${when === null ? 'Post' : 'Schedule'} all that are ready (${able.length})`}
        </Button>
      )}
      {able.length > 0 && <Soft>{`To ${who}.`}</Soft>}
      {missing.size > 0 && <Soft>{`Sign in to ${[...missing].join(', ')} to post there too.`}</Soft>}
    </>
  );
}

const styles = StyleSheet.create({ left: { alignSelf: 'flex-start' } });
