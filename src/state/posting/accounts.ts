import { z } from 'zod';
import { create } from 'zustand';
import { type Abilities, abilitiesSchema } from '@core/outlets/outlet-api';
import {
  abilitiesPath,
  type Account,
  accountPath,
  ACCOUNTS,
  accountsSchema,
  collectionsPath,
  collectionsSchema,
  type LongVideo,
  longVideosPath,
  longVideosSchema,
  SIGN_INS,
  signInAnswerSchema,
} from '@core/posting/accounts';
import type { RuleSheet } from '@core/outlets/rule-sheet';
import { type Trouble, TroubleError } from '@core/trouble/trouble';
import { askJson, type ServerName, serverTrouble } from '../server';
import { sharedSetting } from '../store';

const SERVER: ServerName = { who: 'The server', errand: 'accounts' };

interface AccountsState {
  /** Null before they were asked for. */
  accounts: Account[] | null;
  /** The account that was taken last, by outlet. */
  chosen: Readonly<Record<string, string>>;
  trouble: Trouble | null;
}

/** Accounts at outlets that this browser may post as. Their tokens stay on the server. */
export const useAccounts = create<AccountsState>(() => ({ accounts: null, chosen: {}, trouble: null }));

async function tryAct(act: () => Promise<void>): Promise<void> {
  useAccounts.setState({ trouble: null });
  try {
    await act();
  } catch (error) {
    useAccounts.setState({ trouble: serverTrouble(SERVER, error) });
  }
}

/** Asks which there are. */
export const loadAccounts = (): Promise<void> =>
  tryAct(async () => {
    const { accounts } = await askJson(SERVER, ACCOUNTS, accountsSchema);
    useAccounts.setState({ accounts, chosen: await storedChoice.load() });
  });

const chosenSchema = z.record(z.string(), z.string());
const CHOSEN = 'chosen-accounts';

const storedChoice = sharedSetting<Record<string, string>>(CHOSEN, {
  label: 'chosen accounts',
  read: (text) => chosenSchema.parse(JSON.parse(text ?? '{}')),
  write: (chosen) => JSON.stringify(chosen),
});

/** The account that something goes out as: the one that was taken last for its outlet, or the only one. */
export function chosenAccount({ accounts, chosen }: AccountsState, outlet: string): Account | null {
  const own = accounts?.filter((account) => account.outlet === outlet) ?? [];
  return own.find(({ id }) => id === chosen[outlet]) ?? (own.length === 1 ? (own[0] ?? null) : null);
}

/** Takes an account for what goes to its outlet from now on. */
export async function chooseAccount({ outlet, id }: Account): Promise<void> {
  const take = (chosen: Record<string, string>) => ({ ...chosen, [outlet]: id });
  useAccounts.setState(({ chosen }) => ({ chosen: take(chosen) }));
  useAccounts.setState({ chosen: await storedChoice.change(take) });
}

/** Asks for the abilities of an outlet. @throws TroubleError */
export const outletAbilities = (outlet: string): Promise<Abilities> =>
  askJson(SERVER, abilitiesPath(outlet), abilitiesSchema);

/** Collections of an account. @throws TroubleError */
export const fetchCollections = async (account: string): Promise<string[]> =>
  (await askJson(SERVER, collectionsPath(account), collectionsSchema)).collections;

/** Long videos that a clip may be linked to. @throws TroubleError */
export const searchLongVideos = async (account: string, search: string): Promise<LongVideo[]> =>
  (await askJson(SERVER, `${longVideosPath(account)}?search=${encodeURIComponent(search)}`, longVideosSchema))
    .videos;

/** Goes to an outlet to sign in. @param back the page of the app to come back to. */
export const signInToOutlet = (
  { outlet, name }: Pick<RuleSheet, 'outlet' | 'name'>,
  back: string,
): Promise<void> =>
  tryAct(async () => {
    const body = { outlet, back };
    const { go } = await askJson(SERVER, SIGN_INS, signInAnswerSchema, { method: 'POST', body }).catch(
      (error: unknown) => {
        const { code, values } = serverTrouble(SERVER, error);
        if (code === 'server-refused' && values.why === 'gone')
          throw new TroubleError('outlet-unknown', { outlet: name });
        throw error;
      },
    );
    location.assign(go);
  });

/** Lets an account go, here and at its outlet. */
export const forgetAccount = (id: string): Promise<void> =>
  tryAct(async () => {
    await askJson(SERVER, accountPath(id), z.unknown(), { method: 'DELETE' });
    await loadAccounts();
  });
